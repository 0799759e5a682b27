import { Button, Modal, Textarea } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useRef, useState } from "react";
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
  // lines that were asked about, and are right as they were read
  const [accepted, setAccepted] = useState<number[]>([]);
  const { words, say } = useSaying();
  const kitchen = useKitchen();
  const read = useMutation({
    mutationFn: (accepted: number[]) =>
      got(api.POST("/api/formula/pasted", { body: { text, accepted } })),
  });
  const accept = (line: number) => {
    const now = [...accepted, line];
    setAccepted(now);
    read.mutate(now);
  };
  const faults = byField(read.error);
  // what was found stands while an answer is on its way
  const last = useRef(read.data);
  if (read.data) last.current = read.data;
  const found = read.data ?? (read.isPending ? last.current : undefined);
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
          setAccepted([]);
          last.current = undefined;
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
                <span>{line.text}</span> <b>left out. {line.why}</b>
              </li>
            ))}
          </ul>
          {found.asked.length > 0 && (
            <section className={classes.asked} aria-label="What is not certain">
              {found.asked.map((line) => (
                <div key={line.number}>
                  <span className="quiet">{line.reading.text}</span>
                  <p>{words(line.asks)}</p>
                  <Button
                    variant="default"
                    loading={read.isPending}
                    onClick={() => accept(line.number)}
                  >
                    Yes, {words(line.reading.says)}
                  </Button>
                </div>
              ))}
              <p className="quiet">What you do not confirm stays out.</p>
            </section>
          )}
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
            disabled={found.lines.length === 0}
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
          <Button loading={read.isPending} onClick={() => read.mutate([])}>
            Read it
          </Button>
        )}
      </div>
    </Modal>
  );
}
