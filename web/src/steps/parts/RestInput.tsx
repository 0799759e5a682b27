import { ActionIcon, Checkbox, Collapse, NativeSelect, UnstyledButton } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { IconArrowDown, IconArrowUp, IconPlus, IconX } from "@tabler/icons-react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { WindowBar } from "@/cold/WindowBar";
import { Choice } from "@/measures/Choice";
import { MeasureInput } from "@/measures/MeasureInput";
import { span } from "@/measures/quantity";
import { onOrIn, type Place, restMin, type Stay, stayIn, withStay } from "../stays";
import classes from "./panels.module.css";

type Rest = Schemas["Rest"];

interface Props {
  label: string;
  path: string;
  rest: Rest | null | undefined;
  onChange: (rest: Rest | null) => void;
  /** Where it may lie first; a shaped piece is as well proofed as chilled. */
  proofer?: boolean;
  /** When it may end today, where that is known. */
  window?: Schemas["RestWindow"];
}

const PLACES: { value: Place; label: string }[] = [
  { value: "bench", label: "Bench" },
  { value: "fridge", label: "Fridge" },
  { value: "freezer", label: "Freezer" },
  { value: "proofer", label: "Proofer" },
];
const NONE = { value: "none" as const, label: "None" };
const MOST = 12;
const NEXT: Record<Place, Place> = {
  freezer: "fridge",
  fridge: "bench",
  bench: "fridge",
  proofer: "fridge",
};

/** A rest: one place after another, and how long in each. */
export function RestInput({ label, path, rest, onChange, window: w, proofer }: Props) {
  const stays = rest?.stays ?? [];
  const several = stays.length > 1;
  const first = stays[0];
  const put = (made: Stay[]) => onChange(made.length ? { stays: made } : null);
  const places = proofer || several ? PLACES : PLACES.slice(0, 3);
  // what stands there can always be seen
  const shown = (at: Place | undefined) =>
    at === "proofer" && !places.some((p) => p.value === at) ? PLACES : places;
  const swap = (n: number, to: number) => {
    const [a, b] = [stays[n], stays[to]];
    if (a && b) put(stays.map((s, k) => (k === n ? b : k === to ? a : s)));
  };
  return (
    <div>
      <Choice
        label={label}
        tight={!several}
        value={first?.place ?? "none"}
        options={[...(several ? [] : [NONE]), ...shown(first?.place)]}
        onChange={(place) =>
          place === "none"
            ? onChange(null)
            : put(first ? [{ ...first, place }, ...stays.slice(1)] : [stayIn(place, 30)])
        }
      />
      {rest &&
        stays.map((stay, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a stay is where it stands in the rest
          <div key={n} className={classes.stay} data-several={several || undefined}>
            {n > 0 && (
              <Choice
                label="then"
                value={stay.place}
                options={PLACES}
                onChange={(place) => onChange(withStay(rest, n, { place }))}
              />
            )}
            <div className={classes.stayMinutes}>
              <MeasureInput
                label={
                  several
                    ? `${onOrIn(stay.place).replace(/^./, (a) => a.toUpperCase())} for`
                    : "Rest for"
                }
                quantity="time"
                path={`${path}.stays[${n}].minutes`}
                value={stay.minutes}
                onChange={(minutes) => minutes !== null && onChange(withStay(rest, n, { minutes }))}
              />
              {several && (
                <Moves
                  n={n}
                  of={stays.length}
                  place={stay.place}
                  swap={swap}
                  drop={() => put(stays.filter((_, k) => k !== n))}
                />
              )}
            </div>
            <How
              path={`${path}.stays[${n}]`}
              stay={stay}
              onChange={(how) => onChange(withStay(rest, n, how))}
            />
          </div>
        ))}
      {rest && stays.length < MOST && (
        <UnstyledButton
          className={classes.then}
          onClick={() => put([...stays, stayIn(NEXT[stays.at(-1)?.place ?? "fridge"], 15)])}
        >
          <IconPlus size={15} aria-hidden /> Then another place
        </UnstyledButton>
      )}
      {several && <p className={classes.said}>{span(restMin(rest))} in all.</p>}
      {rest && w && <WindowBar window={w} />}
    </div>
  );
}

interface MovesProps {
  n: number;
  of: number;
  place: Place;
  swap: (n: number, to: number) => void;
  drop: () => void;
}

/** One stay earlier, later, or off. */
function Moves({ n, of, place, swap, drop }: MovesProps) {
  return (
    <div className={classes.stayMoves}>
      <ActionIcon
        variant="default"
        size={38}
        aria-label={`${place} ${n + 1} earlier`}
        disabled={n === 0}
        onClick={() => swap(n, n - 1)}
      >
        <IconArrowUp size={17} />
      </ActionIcon>
      <ActionIcon
        variant="default"
        size={38}
        aria-label={`${place} ${n + 1} later`}
        disabled={n === of - 1}
        onClick={() => swap(n, n + 1)}
      >
        <IconArrowDown size={17} />
      </ActionIcon>
      <ActionIcon
        variant="default"
        size={38}
        aria-label={`Take ${place} ${n + 1} off`}
        onClick={drop}
      >
        <IconX size={17} />
      </ActionIcon>
    </div>
  );
}

interface HowProps {
  path: string;
  stay: Stay;
  onChange: (how: Partial<Stay>) => void;
}

const COVERED: Record<string, boolean | null> = { usual: null, covered: true, open: false };

/** How it lies there: how warm that is for this stay, on what, covered or not, under ice. */
function How({ path, stay, onChange }: HowProps) {
  const { options } = useTrade();
  const told =
    stay.iced ||
    stay.on !== "usual" ||
    stay.chilled !== "not" ||
    typeof stay.covered === "boolean" ||
    typeof stay.to_c === "number" ||
    typeof stay.until_c === "number" ||
    typeof stay.air_c === "number";
  const [open, { toggle }] = useDisclosure(told);
  const covered = Object.entries(COVERED).find(([, is]) => is === (stay.covered ?? null))?.[0];
  const air = (
    <div className={classes.pair}>
      <MeasureInput
        label={stay.place === "proofer" ? "Proofer at" : "It is there"}
        quantity="temperature"
        path={`${path}.air_c`}
        value={stay.air_c}
        emptyMeans="as usual"
        onChange={(air_c) => onChange({ air_c })}
      />
      {stay.place === "proofer" ? (
        <MeasureInput
          label="Humidity"
          quantity="share"
          path={`${path}.humidity_pct`}
          value={stay.humidity_pct}
          emptyMeans="as usual"
          onChange={(humidity_pct) => onChange({ humidity_pct })}
        />
      ) : (
        <GoesTo path={path} stay={stay} onChange={onChange} />
      )}
    </div>
  );
  return (
    <>
      {stay.place === "proofer" && air}
      <UnstyledButton
        onClick={toggle}
        aria-expanded={open}
        fz={13.5}
        c="var(--quiet)"
        td="underline dotted"
        py={4}
      >
        How it lies there
      </UnstyledButton>
      <Collapse expanded={open} transitionDuration={0}>
        {stay.place === "proofer" ? <GoesTo path={path} stay={stay} onChange={onChange} /> : air}
        <MeasureInput
          label="Until its middle is"
          quantity="temperature"
          path={`${path}.until_c`}
          value={stay.until_c}
          emptyMeans="by the minutes"
          onChange={(until_c) => onChange({ until_c })}
        />
        <Choice
          label="It lies on"
          value={stay.on}
          options={options<Schemas["Surface"]>("surface")}
          onChange={(on) => onChange({ on })}
        />
        <NativeSelect
          label="Surface beforehand"
          value={stay.chilled}
          data={options("chilled")}
          onChange={(e) => onChange({ chilled: e.currentTarget.value as Schemas["Chilled"] })}
        />
        <Choice
          label="Covered"
          tight
          value={covered ?? "usual"}
          options={[
            { value: "usual", label: "As usual" },
            { value: "covered", label: "Covered" },
            { value: "open", label: "Open" },
          ]}
          onChange={(how) => onChange({ covered: COVERED[how] })}
        />
        <Checkbox
          mt={8}
          label="Ice packs on top"
          checked={stay.iced}
          onChange={(e) => onChange({ iced: e.currentTarget.checked })}
        />
      </Collapse>
    </>
  );
}

/** A cabinet that goes on to another warmth while it lies there. */
function GoesTo({ path, stay, onChange }: HowProps) {
  return (
    <MeasureInput
      label="Goes evenly to"
      quantity="temperature"
      path={`${path}.to_c`}
      value={stay.to_c}
      emptyMeans="stays so"
      onChange={(to_c) => onChange({ to_c })}
    />
  );
}
