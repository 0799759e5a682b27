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
  // Where the measure does not fit its line it stands beside it, upright lines to their left.
  const beside = upright && !fits;
  const x = upright ? (beside ? at - 9 : at) : middle;
  const y = upright ? middle : fits ? at : at - 11;
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
        y={y}
        fontSize={size}
        fontWeight={650}
        fill="var(--ink)"
        className="onPaper"
        textAnchor={beside ? "end" : "middle"}
        dominantBaseline="central"
        transform={upright && fits ? `rotate(-90 ${x} ${y})` : undefined}
      >
        {text}
      </text>
    </g>
  );
}
