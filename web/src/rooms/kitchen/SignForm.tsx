/** What a finished product's label says of the house. */
import { Button, Chip, Textarea } from "@mantine/core";
import { useContext, useState } from "react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { FaultsContext } from "@/measures/faults";
import classes from "./KitchenRoom.module.css";

type Sign = Schemas["Sign"];
const PARTS: { name: "name" | "address" | "storage"; label: string }[] = [
  { name: "name", label: "The house’s name" },
  { name: "address", label: "Its address" },
  { name: "storage", label: "How the product is kept" },
];

export function SignForm({ sign, keep }: { sign: Sign; keep: (sign: Sign) => void }) {
  const faults = useContext(FaultsContext);
  const [draft, setDraft] = useState(sign);
  const { options } = useTrade();
  const same = JSON.stringify(draft) === JSON.stringify(sign);
  return (
    <fieldset className={classes.group} id="labels">
      <legend>On every label</legend>
      <form
        className={classes.form}
        aria-label="On every label"
        onSubmit={(e) => {
          e.preventDefault();
          keep(draft);
        }}
      >
        {PARTS.map(({ name, label }) => (
          <Textarea
            key={name}
            autosize
            minRows={1}
            label={label}
            value={draft[name] ?? ""}
            error={faults[`sign.${name}`]}
            onChange={(e) => setDraft({ ...draft, [name]: e.currentTarget.value })}
          />
        ))}
        <Chip.Group
          multiple
          value={draft.shows ?? []}
          onChange={(shows) => setDraft({ ...draft, shows: shows as Sign["shows"] })}
        >
          <fieldset aria-label="A label shows" className={classes.shows}>
            <span>Beside its name and its allergens a label shows</span>
            {options<string>("label_part").map((part) => (
              <Chip key={part.value} value={part.value} variant="outline">
                {part.label}
              </Chip>
            ))}
          </fieldset>
        </Chip.Group>
        <p className="quiet">
          The size of your label sheets stands among the values, under “Label”. Your local law
          decides what a label must say.
        </p>
        <div className={classes.buttons}>
          <Button type="submit" disabled={same}>
            {same ? "Saved" : "Save"}
          </Button>
        </div>
      </form>
    </fieldset>
  );
}
