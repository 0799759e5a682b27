import { Button, Checkbox, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { api, got, Problem, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { Choice } from "@/measures/Choice";
import { FaultsContext } from "@/measures/faults";
import { MeasureInput } from "@/measures/MeasureInput";
import { capital } from "@/measures/words";
import { FAMILIES } from "./families";
import classes from "./NewPlan.module.css";

interface Props {
  onMade: (made: Schemas["SavedPlan"]) => void;
  onClose: () => void;
}

/** What dough, and how much: enough for a whole plan to start from. */
export function NewPlan({ onMade, onClose }: Props) {
  const [family, setFamily] = useState<Schemas["Family"]>("croissant");
  const [dough, setDough] = useState<number>(2000);
  const [formula, setFormula] = useState(true);
  const [name, setName] = useState("");
  const make = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/plans/start", {
          body: {
            family,
            dough_g: dough,
            with_formula: formula,
            name: name.trim() || `My ${FAMILIES[family]}`,
          },
        }),
      ),
    onSuccess: onMade,
  });
  const found = make.error instanceof Problem ? make.error.faults : [];
  const faults = Object.fromEntries(found.map((f) => [f.field, f.message]));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate();
  };
  return (
    <FaultsContext.Provider value={faults}>
      <form className={classes.form} onSubmit={submit} aria-label="New plan">
        <h2>What do you laminate?</h2>
        <Choice
          label="Family"
          value={family}
          onChange={setFamily}
          options={Object.entries(FAMILIES).map(([value, label]) => ({
            value: value as Schemas["Family"],
            label: capital(label),
          }))}
        />
        <MeasureInput
          label="Dough"
          quantity="mass"
          path="dough_g"
          value={dough}
          onChange={(v) => v !== null && setDough(v)}
        />
        <Checkbox
          label="With a formula of its family to start from"
          checked={formula}
          onChange={(e) => setFormula(e.currentTarget.checked)}
        />
        <TextInput
          label="Name"
          placeholder={`My ${FAMILIES[family]}`}
          value={name}
          error={faults.name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        {make.error && !(make.error instanceof Problem) && (
          <p role="alert">{sentence(make.error)}</p>
        )}
        <div className={classes.buttons}>
          <Button type="submit" size="md" loading={make.isPending}>
            Make the plan
          </Button>
          <Button variant="default" size="md" onClick={onClose}>
            Not now
          </Button>
        </div>
      </form>
    </FaultsContext.Provider>
  );
}
