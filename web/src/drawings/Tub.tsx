/** A tub from the side, to scale: how full it is, how far it rises, and the room left above. */
import { useElementSize } from "@mantine/hooks";
import { Dimension } from "./Dimension";

interface Props {
  volume_l: number;
  rises_to_l: number;
  tub_l: number;
  name: string;
}

const litres = (l: number) => `${l.toFixed(l < 10 ? 1 : 0)} l`;

export function Tub({ volume_l, rises_to_l, tub_l, name }: Props) {
  const { ref, width, height } = useElementSize();
  const [wide, high] = [Math.max(width, 220), Math.max(height, 220)];
  const tall = Math.min(high - 70, (wide - 180) * 0.9);
  const across = tall * 0.95;
  const [x, floor] = [(wide - across) / 2 - 20, (high + tall) / 2 + 8];
  const at = (l: number) => floor - (tall * l) / tub_l;
  const level = (l: number, text: string, dashed?: boolean) => (
    <g>
      <line
        x1={x}
        x2={x + across}
        y1={at(l)}
        y2={at(l)}
        stroke="var(--dough-edge)"
        strokeWidth={1.5}
        strokeDasharray={dashed ? "6 5" : undefined}
      />
      <text x={x + across + 10} y={at(l) + 5} fontSize={14} fill="var(--ink)">
        {text} <tspan fontWeight={700}>{litres(l)}</tspan>
      </text>
    </g>
  );
  return (
    <div className="drawing" ref={ref} style={{ minHeight: 220 }}>
      <svg
        width={wide}
        height={high}
        role="img"
        aria-label={`A tub of ${litres(tub_l)}: ${name.toLowerCase()} fills ${litres(volume_l)} of it and rises to ${litres(rises_to_l)}.`}
      >
        <rect
          x={x}
          y={at(rises_to_l)}
          width={across}
          height={at(volume_l) - at(rises_to_l)}
          fill="var(--dough)"
          opacity={0.35}
        />
        <rect
          x={x}
          y={at(volume_l)}
          width={across}
          height={floor - at(volume_l)}
          fill="var(--dough)"
        />
        <path
          d={`M${x - 8},${at(tub_l)} h8 V${floor} h${across} V${at(tub_l)} h8`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2}
        />
        {level(volume_l, "mixed")}
        {level(rises_to_l, "ripe", true)}
        <Dimension from={at(tub_l)} to={floor} at={x - 26} text={litres(tub_l)} upright />
      </svg>
    </div>
  );
}
