import { Checkbox, Collapse, NativeSelect, UnstyledButton } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { WindowBar } from "@/cold/WindowBar";
import { Choice } from "@/measures/Choice";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./panels.module.css";
import { restIn } from "./rests";

type Rest = Schemas["Rest"];

interface Props {
  label: string;
  path: string;
  rest: Rest | null | undefined;
  onChange: (rest: Rest | null) => void;
  /** After shaping a rest may be the proof. */
  proofer?: boolean;
  /** When it may end today, where that is known. */
  window?: Schemas["RestWindow"];
}

const PLACES: { value: Rest["place"] | "none"; label: string }[] = [
  { value: "none", label: "None" },
  { value: "bench", label: "Bench" },
  { value: "fridge", label: "Fridge" },
  { value: "freezer", label: "Freezer" },
];

const PROOFER = { value: "proofer" as const, label: "Proofer" };

/** A rest: where, and how long; it may begin and end elsewhere. */
export function RestInput({ label, path, rest, onChange, window: w, proofer }: Props) {
  return (
    <div>
      <Choice
        label={label}
        tight
        value={rest?.place ?? "none"}
        options={proofer ? [...PLACES.filter((p) => p.value !== "freezer"), PROOFER] : PLACES}
        onChange={(place) =>
          onChange(place === "none" ? null : { ...(rest ?? restIn(place, 30)), place })
        }
      />
      {rest && (
        <MeasureInput
          label="Rest for"
          quantity="time"
          path={`${path}.minutes`}
          value={rest.minutes}
          onChange={(minutes) => minutes !== null && onChange({ ...rest, minutes })}
        />
      )}
      {rest?.place === "proofer" && (
        <div className={classes.pair}>
          <MeasureInput
            label="Proofer at"
            quantity="temperature"
            path={`${path}.air_c`}
            value={rest.air_c}
            emptyMeans="as usual"
            onChange={(air_c) => onChange({ ...rest, air_c })}
          />
          <MeasureInput
            label="Humidity"
            quantity="share"
            path={`${path}.humidity_pct`}
            value={rest.humidity_pct}
            emptyMeans="as usual"
            onChange={(humidity_pct) => onChange({ ...rest, humidity_pct })}
          />
        </div>
      )}
      {rest && w && <WindowBar window={w} />}
      {rest && <Chain path={path} rest={rest} onChange={onChange} />}
    </div>
  );
}

/** What else is to be said of a rest: first in the freezer, last on the bench, on what, under ice. */
function Chain({
  path,
  rest,
  onChange,
}: {
  path: string;
  rest: Rest;
  onChange: (r: Rest) => void;
}) {
  const { options } = useTrade();
  const [open, { toggle }] = useDisclosure(
    Boolean(rest.first || rest.last || rest.iced || rest.on !== "usual" || rest.chilled !== "not"),
  );
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
        More about this rest
      </UnstyledButton>
      <Collapse expanded={open} transitionDuration={0}>
        <MeasureInput
          label="First part of the rest, in the freezer"
          quantity="time"
          path={`${path}.first.minutes`}
          value={rest.first?.minutes}
          emptyMeans="none"
          onChange={(m) =>
            onChange({ ...rest, first: m ? { place: "freezer", minutes: m } : null })
          }
        />
        <MeasureInput
          label="Last part of the rest, on the bench to temper"
          quantity="time"
          path={`${path}.last.minutes`}
          value={rest.last?.minutes}
          emptyMeans="none"
          onChange={(m) => onChange({ ...rest, last: m ? { place: "bench", minutes: m } : null })}
        />
        <Choice
          label="It lies on"
          tight
          value={rest.on}
          options={options<Schemas["Surface"]>("surface")}
          onChange={(on) => onChange({ ...rest, on })}
        />
        <NativeSelect
          label="Surface beforehand"
          value={rest.chilled}
          data={options("chilled")}
          onChange={(e) =>
            onChange({ ...rest, chilled: e.currentTarget.value as Schemas["Chilled"] })
          }
        />
        <Checkbox
          mt={8}
          label="Ice packs on top"
          checked={rest.iced}
          onChange={(e) => onChange({ ...rest, iced: e.currentTarget.checked })}
        />
      </Collapse>
    </>
  );
}
