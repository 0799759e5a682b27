import { Button, Modal, Textarea } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, byField, got, type Schemas } from "@/api/client";
import { sentence, useKitchen } from "@/api/queries";
import { useSaying } from "@/measures/likes";
import classes from "./PasteFormula.module.css";

type Plan = Schemas["Plan"];

interface Props {
  plan: Plan;
  close: () => void;
  change: (plan: Plan, path: string) => void;
}

/** The formula that a pasted list amounts to: the block in the same share of this plan's dough. */
export function taken(plan: Plan, pasted: Schemas["Pasted"], own: Schemas["Ingredient"][]): Plan {
  if (!plan.formula) return plan;
  const { lines, dough_g, block_g } = pasted;
  const mass_g = Math.round((plan.dough.mass_g * block_g) / dough_g);
  return {
    ...plan,
    formula: { ...plan.formula, lines, own },
    butter: block_g > 0 ? { ...plan.butter, mass_g } : plan.butter,
  };
}

/** A list of ingredients as somebody wrote it: what was understood, and what was not. */
export function PasteFormula({ plan, close, change }: Props) {
  const [text, setText] = useState("");
  const { words, say } = useSaying();
  const kitchen = useKitchen();
  const read = useMutation({
    mutationFn: (body: { text: string }) => got(api.POST("/api/formula/pasted", { body })),
  });
  const faults = byField(read.error);
  const found = read.data;
  return (
    <Modal opened onClose={close} title="Formula from a list" size={640}>
      <Textarea
        label="One ingredient on each line"
        placeholder={"500 g bread flour\n1 cup milk\n1 stick butter, for laminating"}
        autosize
        minRows={6}
        maxRows={14}
        value={text}
        error={faults.text}
        onChange={(e) => {
          setText(e.currentTarget.value);
          read.reset();
        }}
      />
      {read.isError && !faults.text && (
        <p role="alert" className="bar mind">
          {sentence(read.error)}
        </p>
      )}
      {found && (
        <div role="status">
          <ul className={classes.read}>
            {found.read.map((line) => (
              <li key={line.text}>
                <span className="quiet">{line.text}</span> <b>{words(line.says)}</b>
              </li>
            ))}
            {found.missed.map((line) => (
              <li key={line.text} className={classes.missed}>
                <span>{line.text}</span> <b>not understood. {line.why}</b>
              </li>
            ))}
          </ul>
          <p className="quiet">
            {say("mass", Math.round(found.dough_g))} of dough
            {found.block_g > 0 &&
              `, ${say("mass", Math.round(found.block_g))} of butter for the block`}
            . Your plan keeps its own mass of dough.
          </p>
        </div>
      )}
      <div className={classes.go}>
        {found ? (
          <Button
            onClick={() => {
              const named = new Map(kitchen.data?.ingredients.map((i) => [i.key, i]));
              const own = found.lines.flatMap((line) => named.get(line.ingredient) ?? []);
              change(taken(plan, found, own), "formula.lines");
              close();
            }}
          >
            Take it as the formula
          </Button>
        ) : (
          <Button loading={read.isPending} onClick={() => read.mutate({ text })}>
            Read it
          </Button>
        )}
      </div>
    </Modal>
  );
}
