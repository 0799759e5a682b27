/** One thing to decide: options as buttons, a number by plus and minus or typed. */
import { Button } from "@mantine/core";
import { useId } from "react";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { type QuantityName, span } from "@/measures/quantity";
import { capital } from "@/measures/words";
import classes from "./Asked.module.css";
import { decide, decidedOf, type Play } from "./play";

type Value = string | number;

interface AllProps {
  of: Schemas["AskedChoice"][];
  /** The step that it is asked at. */
  stop: string;
  play: Play;
  setPlay: (next: (was: Play | null) => Play | null) => void;
}

/** All that is asked at once, each with what was decided. */
export function AskedAll({ of, stop, play, setPlay }: AllProps) {
  return (
    <div className={classes.asked}>
      {of.map((asked) => (
        <Asked
          key={asked.field}
          asked={asked}
          value={decidedOf(play, stop, asked.field)}
          onDecide={(value) =>
            setPlay((was) => was && decide(was, { step: stop, field: asked.field, value }))
          }
        />
      ))}
    </div>
  );
}

interface Props {
  asked: Schemas["AskedChoice"];
  value: Value | undefined;
  onDecide: (value: Value) => void;
}

const QUANTITY: Record<string, QuantityName> = { mm: "length", "°C": "temperature" };
/** By how much one press changes a number. */
const BY: Record<string, number> = { min: 5, mm: 1, "°C": 1, "%": 1 };
const FINE_MM = 20; // a range of mm no wider goes by halves

function Asked({ asked, value, onDecide }: Props) {
  const { foldTitle } = useSaying();
  if (asked.options.length > 0)
    return (
      <Choice
        label={capital(asked.said)}
        value={String(value ?? "")}
        options={asked.options.map((o) => ({
          value: o.value,
          label: asked.field === "fold" ? foldTitle(o.value) : o.said,
        }))}
        onChange={onDecide}
      />
    );
  return <NumberAsked asked={asked} value={value} onDecide={onDecide} />;
}

function NumberAsked({ asked, value, onDecide }: Props) {
  const { say } = useSaying();
  const id = useId();
  const [low, high] = [asked.low ?? 0, asked.high ?? 0];
  const by =
    asked.unit === "mm" && high - low <= FINE_MM ? (BY.mm ?? 1) / 2 : (BY[asked.unit] ?? 1);
  const now = Number(value ?? asked.now ?? low);
  const put = (next: number) => onDecide(Math.min(Math.max(Math.round(next * 10) / 10, low), high));
  const quantity = QUANTITY[asked.unit];
  const shown =
    asked.unit === "min"
      ? span(Math.round(now))
      : quantity
        ? say(quantity, now)
        : `${now} ${asked.unit}`;
  return (
    <fieldset className={classes.stepper} aria-labelledby={id}>
      <span id={id}>{capital(asked.said)}</span>
      <Button
        variant="default"
        size="xl"
        aria-label={`Less: ${asked.said}`}
        disabled={now <= low}
        onClick={() => put(now - by)}
      >
        −
      </Button>
      <output aria-label={asked.said}>{shown}</output>
      <Button
        variant="default"
        size="xl"
        aria-label={`More: ${asked.said}`}
        disabled={now >= high}
        onClick={() => put(now + by)}
      >
        +
      </Button>
    </fieldset>
  );
}
