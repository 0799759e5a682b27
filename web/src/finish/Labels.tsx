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
  /** The plan that is saved, where there is one: its labels can be printed. */
  plan?: number | null;
  /** When it was made. */
  madeAt?: string;
}

export function Labels({ worked, plan, madeAt }: Props) {
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
            {label.baked_g ? `${say("mass", label.baked_g)} baked` : ""}
            {label.keeps_h ? ` · at its best for ${span(60 * label.keeps_h)}` : ""}
          </p>
          {plan != null && (
            <Printed
              plan={plan}
              product={n}
              madeAt={madeAt}
              pieces={cut?.products[n]?.pieces ?? 18}
            />
          )}
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
  plan: number;
  product: number;
  pieces: number;
  madeAt?: string;
}

function Printed({ plan, product, pieces, madeAt }: PrintedProps) {
  const [copies, setCopies] = useState(String(pieces));
  const query = new URLSearchParams({ product: String(product), copies: String(copies || 1) });
  if (madeAt) query.set("made_at", madeAt);
  return (
    <div className={classes.printed}>
      <TextInput
        label="Labels"
        inputMode="numeric"
        value={copies}
        onChange={(e) => setCopies(e.currentTarget.value.replace(/\D/g, ""))}
        w={96}
      />
      <Button
        component="a"
        variant="default"
        href={`/api/plans/${plan}/labels.pdf?${query}`}
        download
      >
        Sheet of labels (PDF)
      </Button>
      <Button
        component="a"
        variant="default"
        href={`/api/plans/${plan}/label.svg?${query}`}
        target="_blank"
      >
        One label (SVG)
      </Button>
    </div>
  );
}
