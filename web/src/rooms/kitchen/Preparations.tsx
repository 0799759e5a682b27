/** What the house prepares itself: creams, nut pastes, washes, syrups, seasoned sugar. */
import { Button, FileButton, NativeSelect, TextInput } from "@mantine/core";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Thing } from "@/steps/parts/Thing";
import { freeKey } from "./freeKey";
import classes from "./KitchenRoom.module.css";
import { OwnRow, useOwn, type Writing } from "./own";

type Preparation = Schemas["Preparation"];

interface Props {
  own: Preparation[];
  /** As ingredients: with what is in them. */
  prepared: Schemas["Ingredient"][];
  keep: (preparations: Preparation[]) => void;
  fromTable: (file: File) => void;
}

const FRESH: Omit<Preparation, "key"> = {
  name: "Nut paste",
  parts: [
    { what: "hazelnut", grams: 300 },
    { what: "sugar", grams: 200 },
  ],
  loss_pct: 0,
  minutes: 15,
  made: "before",
  keeps_h: 48,
  care: "none",
};

export function Preparations({ own, prepared, keep, fromTable }: Props) {
  const { say, words } = useSaying();
  const { writing, begin, change, remove } = useOwn(own, keep);
  return (
    <fieldset className={classes.group} id="preparations">
      <legend>What you prepare</legend>
      <p className="quiet">
        A filling, cream, wash or syrup made here. Use it by its name wherever an ingredient can
        stand; it is weighed out, bought and declared with what is in it.
      </p>
      {own.map((what, i) => {
        const like = prepared.find((p) => p.key === what.key);
        return (
          <OwnRow key={what.key} name={what.name} change={() => change(i)} remove={() => remove(i)}>
            {what.parts.map((p) => `${words(p.what)} ${say("mass", p.grams)}`).join(", ")}
            {like && like.allergens.length > 0 && ` · contains ${like.allergens.join(", ")}`}
            {like && like.unknown.length > 0 && ` · not known: ${like.unknown.join(", ")}`}
          </OwnRow>
        );
      })}
      {writing ? (
        <PreparationForm {...writing} />
      ) : (
        <div className={classes.buttons}>
          <Button
            variant="default"
            onClick={() => begin({ key: freeKey(FRESH.name, own), ...FRESH })}
          >
            Add a preparation
          </Button>
          {own.length > 0 && (
            <Button component="a" href="/api/kitchen/preparations.csv" download variant="default">
              Table (CSV)
            </Button>
          )}
          <FileButton onChange={(file) => file && fromTable(file)} accept=".csv,text/csv">
            {(props) => (
              <Button {...props} variant="default">
                From a table
              </Button>
            )}
          </FileButton>
        </div>
      )}
    </fieldset>
  );
}

function PreparationForm({ at, what, kept, change, keep, close }: Writing<Preparation>) {
  const faults = useContext(FaultsContext);
  const { options } = useTrade();
  const { say } = useSaying();
  const path = `preparations[${at}]`;
  const raw = what.parts.reduce((sum, p) => sum + p.grams, 0);
  const part = (n: number, next: Partial<Schemas["PreparedPart"]>) =>
    change({ ...what, parts: what.parts.map((p, i) => (i === n ? { ...p, ...next } : p)) });
  const about = faults[path] ?? faults[`${path}.key`] ?? faults[`${path}.parts`];
  return (
    <form
      className={classes.form}
      aria-label="A preparation"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <TextInput
        label="Name"
        value={what.name}
        error={faults[`${path}.name`]}
        onChange={(e) => change({ ...what, name: e.currentTarget.value })}
      />
      {what.parts.map((p, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: parts have no identity but their place
        <div key={n} className={classes.prepared}>
          <Thing
            label={`Ingredient ${n + 1}`}
            value={p.what}
            path={`${path}.parts[${n}].what`}
            onChange={(name) => part(n, { what: name })}
          />
          <MeasureInput
            label={`Amount ${n + 1}`}
            quantity="mass"
            path={`${path}.parts[${n}].grams`}
            value={p.grams}
            onChange={(grams) => grams !== null && part(n, { grams })}
          />
          <Button
            variant="default"
            aria-label={`Remove ingredient ${n + 1}`}
            disabled={what.parts.length < 2}
            onClick={() => change({ ...what, parts: what.parts.filter((_, i) => i !== n) })}
          >
            ×
          </Button>
        </div>
      ))}
      <Button
        variant="default"
        size="xs"
        onClick={() => change({ ...what, parts: [...what.parts, { what: "sugar", grams: 100 }] })}
      >
        Add an ingredient
      </Button>
      <div className={classes.parts}>
        <MeasureInput
          label="Lost in the pan"
          quantity="percent"
          path={`${path}.loss_pct`}
          value={what.loss_pct}
          onChange={(loss_pct) => loss_pct !== null && change({ ...what, loss_pct })}
        />
        <MeasureInput
          label="Minutes of work"
          quantity="time"
          path={`${path}.minutes`}
          value={what.minutes}
          onChange={(minutes) => minutes !== null && change({ ...what, minutes })}
        />
        <MeasureInput
          label="It keeps, in hours"
          quantity="number"
          path={`${path}.keeps_h`}
          value={what.keeps_h}
          onChange={(keeps_h) => keeps_h !== null && change({ ...what, keeps_h })}
        />
      </div>
      <div className={classes.twoSelects}>
        <NativeSelect
          label="Made"
          value={what.made}
          data={options("made")}
          onChange={(e) => change({ ...what, made: e.currentTarget.value as Preparation["made"] })}
        />
        <NativeSelect
          label="Take care of"
          value={what.care}
          data={options("care")}
          onChange={(e) => change({ ...what, care: e.currentTarget.value as Preparation["care"] })}
        />
      </div>
      <p className="quiet">
        {say("mass", raw)} make {say("mass", raw * (1 - (what.loss_pct ?? 0) / 100))}.
      </p>
      {about && <p role="alert">{about}</p>}
      <div className={classes.buttons}>
        <Button type="submit" disabled={kept}>
          {kept ? "Saved" : "Save"}
        </Button>
        <Button variant="default" onClick={close}>
          Close
        </Button>
      </div>
    </form>
  );
}
