/** The label of each product: what is in it, its allergens set apart, and sheets of it to print. */
import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { made } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import classes from "./Finish.module.css";

interface Props {
  worked: Schemas["WorkedPlan"];
  /** Where its labels are printed from, a plan that is saved or a run; none: they are only read. */
  from?: { plan: number } | { run: string } | null;
}

export function Labels({ worked, from }: Props) {
  const { say, words } = useSaying();
  const cut = made(worked, "cut");
  if (worked.labels.length === 0) return null;
  return (
    <div className={classes.labels}>
      {worked.labels.map((label, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
        <div key={n} className={classes.label}>
          <b>{words(label.product)}</b>
          <Ingredients of={label.declared} />
          <p>
            <strong>{words(label.says)}</strong>
          </p>
          <p>
            {label.baked_g ? `${say("mass", label.baked_g)} each` : ""}
            {label.keeps_h ? ` · at its best for ${span(60 * label.keeps_h)}` : ""}
          </p>
          {from && <Printed from={from} product={n} pieces={cut?.products[n]?.pieces ?? 18} />}
        </div>
      ))}
      <p className={classes.said}>
        Your local law decides what a label must say; check it against your own ingredients.
      </p>
    </div>
  );
}

/** By falling weight; what brings an allergen is bold, and what it is made of stands in brackets. */
function Ingredients({ of }: { of: Schemas["Declared"][] }) {
  const { words } = useSaying();
  return (
    <p>
      {of.map((one, n) => {
        const name = words(one.name);
        return (
          <span key={one.name}>
            {n > 0 && ", "}
            {one.allergens.length > 0 ? <b>{name}</b> : name}
            {one.of.length > 0 && ` (${words(one.of.join(", "))})`}
          </span>
        );
      })}
    </p>
  );
}

interface PrintedProps {
  from: { plan: number } | { run: string };
  product: number;
  pieces: number;
}

function Printed({ from, product, pieces }: PrintedProps) {
  const [copies, setCopies] = useState(String(pieces));
  const query = new URLSearchParams({ product: String(product), copies: String(copies || 1) });
  const of = "plan" in from ? `/api/plans/${from.plan}` : `/api/runs/${from.run}`;
  return (
    <div className={classes.printed}>
      <TextInput
        label="Labels"
        inputMode="numeric"
        value={copies}
        onChange={(e) => setCopies(e.currentTarget.value.replace(/\D/g, ""))}
        w={96}
      />
      <Button component="a" variant="default" href={`${of}/labels.pdf?${query}`} download>
        Sheet of labels (PDF)
      </Button>
      {"plan" in from && (
        <Button component="a" variant="default" href={`${of}/label.svg?${query}`} target="_blank">
          One label (SVG)
        </Button>
      )}
    </div>
  );
}
