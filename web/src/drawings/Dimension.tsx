/** A workshop dimension line: ticks at both ends, the measure standing in its gap. */
interface Props {
  from: number;
  to: number;
  /** Where the line lies across. */
  at: number;
  text: string;
  upright?: boolean;
  small?: boolean;
}

export function Dimension({ from, to, at, text, upright, small }: Props) {
  const size = small ? 12 : 14.5;
  const middle = (from + to) / 2;
  const gap = Math.min(text.length * size * 0.31 + 7, Math.abs(to - from) / 2);
  const fits = Math.abs(to - from) > text.length * size * 0.62 + 24;
  const line = (a: number, b: number) => (upright ? `M${at},${a} V${b}` : `M${a},${at} H${b}`);
  const tick = (v: number) => (upright ? `M${at - 5},${v} h10` : `M${v},${at - 5} v10`);
  const x = upright ? at : middle;
  const y = upright ? middle : at;
  return (
    <g className="dimension">
      <path
        d={`${fits ? line(from, middle - gap) + line(middle + gap, to) : line(from, to)} ${tick(from)} ${tick(to)}`}
        stroke="var(--ink)"
        strokeWidth={1}
        fill="none"
      />
      <text
        x={x}
        y={fits ? y : upright ? y : y - 10}
        dx={!fits && upright ? -12 : 0}
        fontSize={size}
        fontWeight={650}
        fill="var(--ink)"
        textAnchor="middle"
        dominantBaseline="central"
        transform={upright ? `rotate(-90 ${x} ${y})` : undefined}
      >
        {text}
      </text>
    </g>
  );
}
