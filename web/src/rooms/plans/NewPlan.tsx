import { Button, Checkbox, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useRef, useState } from "react";
import { api, byField, got, Problem, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { FaultsContext, UnreadContext, useUnread } from "@/measures/faults";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./NewPlan.module.css";

interface Props {
  onMade: (made: Schemas["SavedPlan"]) => void;
  onClose: () => void;
}

/** What dough, how much, and what it is rolled by: enough for a whole plan to start from. */
export function NewPlan({ onMade, onClose }: Props) {
  const { options, said } = useTrade();
  const [family, setFamily] = useState<Schemas["Family"]>("croissant");
  const [dough, setDough] = useState<number>(2000);
  const [tool, setTool] = useState<Schemas["Tool"] | "kitchen">("kitchen");
  const [formula, setFormula] = useState(true);
  const [name, setName] = useState("");
  const { unread, tell } = useUnread();
  const form = useRef<HTMLFormElement>(null);
  const usual = `My ${said("family", family)}`;
  const make = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/plans/start", {
          body: {
            family,
            dough_g: dough,
            with_formula: formula,
            name: name.trim() || usual,
            rolled_by: tool === "kitchen" ? null : tool,
          },
        }),
      ),
    onSuccess: onMade,
  });
  const faults = byField(make.error);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    // What cannot be read makes no plan: the field is where to look.
    if (unread) form.current?.querySelector<HTMLInputElement>("[aria-invalid=true]")?.focus();
    else make.mutate();
  };
  return (
    <FaultsContext.Provider value={faults}>
      <UnreadContext.Provider value={tell}>
        <form ref={form} className={classes.form} onSubmit={submit} aria-label="New plan">
          <h2>What do you laminate?</h2>
          <Choice
            label="Family"
            value={family}
            onChange={setFamily}
            options={options<Schemas["Family"]>("family")}
          />
          <MeasureInput
            label="Dough"
            quantity="mass"
            path="dough_g"
            value={dough}
            onChange={(v) => v !== null && setDough(v)}
          />
          <Choice
            label="Rolled by"
            value={tool}
            onChange={setTool}
            options={[
              { value: "kitchen" as const, label: "What the kitchen has" },
              ...options<Schemas["Tool"]>("tool"),
            ]}
          />
          <Checkbox
            label="With a formula of its family to start from"
            checked={formula}
            onChange={(e) => setFormula(e.currentTarget.checked)}
          />
          <TextInput
            label="Name"
            placeholder={usual}
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
      </UnreadContext.Provider>
    </FaultsContext.Provider>
  );
}
