import { MeasureInput } from "@/measures/MeasureInput";

interface Props {
  path: string;
  value: number;
  onChange: (pct: number) => void;
}

/** A fault on purpose: one side of the sheet rolled thicker than the other. */
export function UnevenInput({ path, value, onChange }: Props) {
  return (
    <MeasureInput
      label="On purpose: one side thicker by"
      quantity="share"
      path={path}
      value={value}
      help="than the mean, to see what it costs"
      onChange={(v) => v !== null && onChange(v)}
    />
  );
}
