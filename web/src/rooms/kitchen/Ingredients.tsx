import { Button, Checkbox, NativeSelect, TextInput } from "@mantine/core";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { capital } from "@/measures/words";
import { grouped } from "@/steps/parts/ingredients";
import { FromPacket } from "./FromPacket";
import { freeKey } from "./freeKey";
import classes from "./KitchenRoom.module.css";
import { OwnRow, useOwn, type Writing } from "./own";

type Ingredient = Schemas["Ingredient"];

const PARTS = ["water", "protein", "fat", "carbohydrate", "ash", "sugar"] as const;

export interface Props {
  own: Ingredient[];
  library: Ingredient[];
  keep: (ingredients: Ingredient[]) => void;
}

/** An ingredient of the bakery's own that is being written: begun from one of the library, or changed. */
export function useWritten({ own, library, keep }: Props) {
  const { writing, begin, change, remove } = useOwn(own, keep);
  const from = (key: string) => {
    const like = library.find((i) => i.key === key);
    if (!like) return;
    const name = `My ${like.name.toLowerCase()}`;
    begin({ ...like, name, key: freeKey(name, own) });
  };
  return { form: writing && <IngredientForm {...writing} />, from, change, remove };
}

/** This bakery's own ingredients, with what they are made of; each starts from one of the library. */
export function Ingredients({ own, library, keep }: Props) {
  const { form, from, change, remove } = useWritten({ own, library, keep });
  const { figure } = useSaying();
  const { options } = useTrade();
  return (
    <fieldset className={classes.group} id="ingredients">
      <legend>Your own ingredients</legend>
      {own.map((what, i) => (
        <OwnRow key={what.key} name={what.name} change={() => change(i)} remove={() => remove(i)}>
          {PARTS.slice(0, 4)
            .map((p) => `${p} ${figure("share", what.composition[`${p}_pct`])} %`)
            .join(", ")}
        </OwnRow>
      ))}
      {form ?? (
        <NativeSelect
          aria-label="Add an ingredient like"
          value=""
          data={[{ value: "", label: "Add one, like …" }, ...grouped(library, options("kind"))]}
          onChange={(e) => from(e.currentTarget.value)}
        />
      )}
    </fieldset>
  );
}

function IngredientForm({ at, what, kept, change, keep, close }: Writing<Ingredient>) {
  const faults = useContext(FaultsContext);
  const { options } = useTrade();
  const path = `ingredients[${at}]`;
  return (
    <form
      className={classes.form}
      aria-label="An ingredient of your own"
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
      <FromPacket like={what} take={(composition) => change({ ...what, composition })} />
      <div className={classes.parts}>
        {PARTS.map((part) => (
          <MeasureInput
            key={part}
            label={part === "sugar" ? "Sugar in that" : capital(part)}
            quantity="percent"
            path={`${path}.composition.${part}_pct`}
            value={what.composition[`${part}_pct`]}
            onChange={(v) =>
              v !== null &&
              change({ ...what, composition: { ...what.composition, [`${part}_pct`]: v } })
            }
          />
        ))}
        {what.kind === "yeast" && (
          <MeasureInput
            label="Grams of fresh yeast it stands for"
            quantity="number"
            path={`${path}.as_fresh`}
            value={what.as_fresh}
            onChange={(as_fresh) => as_fresh !== null && change({ ...what, as_fresh })}
          />
        )}
      </div>
      {what.kind === "fat" && <ButterWindow path={path} what={what} change={change} />}
      <div className={classes.allergens}>
        {options<Schemas["Allergen"]>("allergen").map(({ value: allergen, label }) => (
          <Checkbox
            key={allergen}
            label={label}
            checked={what.allergens.includes(allergen)}
            onChange={(e) =>
              change({
                ...what,
                allergens: e.currentTarget.checked
                  ? [...what.allergens, allergen]
                  : what.allergens.filter((a) => a !== allergen),
              })
            }
          />
        ))}
      </div>
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

/** Where a butter breaks, bends and oils: with it, it can be locked in. */
function ButterWindow({
  path,
  what,
  change,
}: Pick<Writing<Ingredient>, "what" | "change"> & { path: string }) {
  const { window } = what;
  const START = { brittle_c: 8, plastic_from_c: 12, plastic_to_c: 17, oils_c: 22, bears_k: 0 };
  if (!window) {
    return (
      <Button variant="default" size="xs" onClick={() => change({ ...what, window: START })}>
        Used for the lock-in: enter its working temperatures
      </Button>
    );
  }
  const part = (label: string, name: keyof typeof START) => (
    <MeasureInput
      label={label}
      quantity={name === "bears_k" ? "number" : "temperature"}
      path={`${path}.window.${name}`}
      value={window[name]}
      onChange={(v) => v !== null && change({ ...what, window: { ...window, [name]: v } })}
    />
  );
  return (
    <div className={classes.parts}>
      {part("Breaks below", "brittle_c")}
      {part("Works from", "plastic_from_c")}
      {part("Works to", "plastic_to_c")}
      {part("Oils at", "oils_c")}
      {part("Bears more cold than butter, K", "bears_k")}
    </div>
  );
}
