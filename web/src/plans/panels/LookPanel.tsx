import { Button } from "@mantine/core";
import { useSaying } from "@/measures/likes";
import { Readout } from "../Readout";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

/** What is looked at when it is cool, and the way out of a plan that ends with the cut. */
export function LookPanel({ plan, worked, change, select, readOnly }: PanelProps) {
  const { say } = useSaying();
  if (!plan.finish || !worked.finish || !worked.cut) return null;
  return (
    <>
      <p className={classes.said}>
        The bench takes the verdict and the book keeps it, with weights before and after, and
        pictures.
      </p>
      <dl className={classes.readouts}>
        {worked.cut.products.map((p) => (
          <Readout
            key={p.name}
            worked={worked}
            label={`${p.name}, raw`}
            value={say("mass", p.filled_g)}
          />
        ))}
      </dl>
      {!readOnly && (
        <Button
          variant="default"
          onClick={() => {
            select("cut");
            change({ ...plan, finish: null }, "finish");
          }}
        >
          End this plan with the cut
        </Button>
      )}
    </>
  );
}
