import { Collapse, UnstyledButton } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import { WindowBar } from "@/cold/WindowBar";
import { Choice } from "@/measures/Choice";
import { MeasureInput } from "@/measures/MeasureInput";

type Rest = Schemas["Rest"];

interface Props {
  label: string;
  path: string;
  rest: Rest | null | undefined;
  onChange: (rest: Rest | null) => void;
  /** When it may end today, where that is known. */
  window?: Schemas["RestWindow"];
}

const PLACES: { value: Rest["place"] | "none"; label: string }[] = [
  { value: "none", label: "None" },
  { value: "bench", label: "Bench" },
  { value: "fridge", label: "Fridge" },
  { value: "freezer", label: "Freezer" },
];

/** A rest: where, and how long; it may begin and end elsewhere. */
export function RestInput({ label, path, rest, onChange, window: w }: Props) {
  return (
    <div>
      <Choice
        label={label}
        tight
        value={rest?.place ?? "none"}
        options={PLACES}
        onChange={(place) =>
          onChange(place === "none" ? null : { ...rest, place, minutes: rest?.minutes ?? 30 })
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
      {rest && w && <WindowBar window={w} />}
      {rest && <Chain path={path} rest={rest} onChange={onChange} />}
    </div>
  );
}

/** The parts of a rest that are spent elsewhere: in the freezer first, on the bench at the end. */
function Chain({
  path,
  rest,
  onChange,
}: {
  path: string;
  rest: Rest;
  onChange: (r: Rest) => void;
}) {
  const [open, { toggle }] = useDisclosure(Boolean(rest.first || rest.last));
  return (
    <>
      <UnstyledButton
        onClick={toggle}
        aria-expanded={open}
        fz={13.5}
        c="var(--quiet)"
        td="underline dotted"
        py={4}
      >
        Freezer first, bench last
      </UnstyledButton>
      <Collapse expanded={open} transitionDuration={0}>
        <MeasureInput
          label="Of that, first in the freezer"
          quantity="time"
          path={`${path}.first.minutes`}
          value={rest.first?.minutes}
          emptyMeans="none"
          onChange={(m) =>
            onChange({ ...rest, first: m ? { place: "freezer", minutes: m } : null })
          }
        />
        <MeasureInput
          label="and last on the bench, to temper"
          quantity="time"
          path={`${path}.last.minutes`}
          value={rest.last?.minutes}
          emptyMeans="none"
          onChange={(m) => onChange({ ...rest, last: m ? { place: "bench", minutes: m } : null })}
        />
      </Collapse>
    </>
  );
}
