import { Button } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { parse, QUANTITIES } from "@/measures/quantity";
import classes from "./Keypad.module.css";

type Probe = Schemas["Probe"];
const KEYS = ["7", "8", "9", "4", "5", "6", "1", "2", "3", "−", "0", "."];
const PROBES: { value: Probe; label: string }[] = [
  { value: "dough", label: "Dough" },
  { value: "butter", label: "Butter" },
  { value: "room", label: "Room" },
];

/** A temperature without typing: what of, and how warm. */
export function Keypad({ onEnter }: { onEnter: (probe: Probe, value_c: number) => void }) {
  const { likes } = useSaying();
  const [probe, setProbe] = useState<Probe>("dough");
  const [text, setText] = useState("");
  const [complaint, setComplaint] = useState("");
  const unit = QUANTITIES.temperature.shown[likes.units];
  const press = (key: string) => {
    setComplaint("");
    setText((t) => {
      if (key === "−") return t.startsWith("-") ? t.slice(1) : `-${t}`;
      if (key === "." && t.includes(".")) return t;
      return t.length < 6 ? t + key : t;
    });
  };
  const enter = () => {
    const read = parse("temperature", text, likes.units);
    if ("complaint" in read) setComplaint("Press the figures first, such as 12.");
    else if (read.value < -40 || read.value > 60)
      setComplaint(`${text} ${unit} is no temperature of a bakehouse.`);
    else onEnter(probe, read.value);
  };
  return (
    <div className={classes.pad}>
      <Choice label="Of the" tight value={probe} onChange={setProbe} options={PROBES} />
      <output className={classes.shown} aria-label="Temperature entered">
        {text.replace("-", "−") || " "} <small>{unit}</small>
      </output>
      {complaint && (
        <p className={classes.complaint} role="alert">
          {complaint}
        </p>
      )}
      <div className={classes.keys}>
        {KEYS.map((key) => (
          <button
            type="button"
            key={key}
            aria-label={key === "−" ? "minus" : key === "." ? "point" : key}
            onClick={() => press(key)}
          >
            {key}
          </button>
        ))}
      </div>
      <div className={classes.enter}>
        <Button variant="default" size="xl" onClick={() => setText((t) => t.slice(0, -1))}>
          Back
        </Button>
        <Button size="xl" onClick={enter}>
          Keep it
        </Button>
      </div>
    </div>
  );
}
