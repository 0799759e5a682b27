import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { MeasureInput } from "@/measures/MeasureInput";

type Rest = Schemas["Rest"];

interface Props {
  label: string;
  path: string;
  rest: Rest | null | undefined;
  onChange: (rest: Rest | null) => void;
}

const PLACES: { value: Rest["place"] | "none"; label: string }[] = [
  { value: "none", label: "None" },
  { value: "bench", label: "Bench" },
  { value: "fridge", label: "Fridge" },
  { value: "freezer", label: "Freezer" },
];

/** A rest: where, and how long. */
export function RestInput({ label, path, rest, onChange }: Props) {
  return (
    <div>
      <Choice
        label={label}
        tight
        value={rest?.place ?? "none"}
        options={PLACES}
        onChange={(place) =>
          onChange(place === "none" ? null : { place, minutes: rest?.minutes ?? 30 })
        }
      />
      {rest && (
        <MeasureInput
          label="Minutes of rest"
          quantity="time"
          path={`${path}.minutes`}
          value={rest.minutes}
          onChange={(minutes) => minutes !== null && onChange({ ...rest, minutes })}
        />
      )}
    </div>
  );
}
