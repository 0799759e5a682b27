import { MeasureInput } from "@/measures/MeasureInput";

interface OwnMinutesProps {
  path: string;
  value: number | null | undefined;
  onChange: (minutes: number | null) => void;
}

/** The baker's own minutes for a stop, in place of the kitchen's. */
export function OwnMinutes({ path, value, onChange }: OwnMinutesProps) {
  return (
    <MeasureInput
      label="Minutes at the bench"
      quantity="time"
      path={path}
      value={value}
      emptyMeans="as in the kitchen"
      onChange={onChange}
    />
  );
}
