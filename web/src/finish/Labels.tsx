/** The label of each product: what is in it, and every allergen of dough, filling and wash together. */
import type { Schemas } from "@/api/client";
import { made } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import classes from "./Finish.module.css";

export function Labels({ worked }: { worked: Schemas["WorkedPlan"] }) {
  const { say } = useSaying();
  const cut = made(worked, "cut");
  if (worked.labels.length === 0) return null;
  return (
    <div className={classes.labels}>
      {worked.labels.map((label, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
        <div key={n} className={classes.label}>
          <b>{label.product}</b>
          <p>
            Contains{" "}
            <strong>{label.allergens.join(", ") || "no allergen that is known here"}</strong>
            {label.unknown.length > 0 && (
              <>
                , and <strong>{label.unknown.join(", ")}</strong>, of which nothing is known here
              </>
            )}
          </p>
          <p>{label.contains.join(", ")}</p>
          {label.ask && <p>{label.ask}</p>}
          <p>Raw {say("mass", cut?.products[n]?.filled_g ?? 0)}</p>
        </div>
      ))}
      <p className={classes.said}>
        Your local law decides what a label must say; check it against your own ingredients.
      </p>
    </div>
  );
}
