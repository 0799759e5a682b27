import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import classes from "./Keypad.module.css";
import { Pad } from "./Pad";

type Probe = Schemas["Probe"];
const PROBES: { value: Probe; label: string }[] = [
  { value: "dough", label: "Dough" },
  { value: "butter", label: "Butter" },
  { value: "room", label: "Room" },
];

/** A temperature without typing: what of, and how warm. */
export function Keypad({ onEnter }: { onEnter: (probe: Probe, value_c: number) => void }) {
  const [probe, setProbe] = useState<Probe>("dough");
  return (
    <div className={classes.pad}>
      <Choice label="Of the" tight value={probe} onChange={setProbe} options={PROBES} />
      <Pad
        quantity="temperature"
        label="Temperature entered"
        minus
        example="12"
        refuse={(value, shown) =>
          value < -40 || value > 60 ? `${shown} is no temperature of a bakehouse.` : null
        }
        onEnter={(value) => onEnter(probe, value)}
      />
    </div>
  );
}
