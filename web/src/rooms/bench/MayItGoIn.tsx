/** The lock-in judged from what was measured at the bench. */
import type { Schemas } from "@/api/client";
import { stopOf } from "@/api/steps";
import { Judged } from "@/cold/Judged";
import classes from "@/cold/Judged.module.css";
import type { RunView } from "./now";

export function MayItGoIn({ view }: { view: RunView }) {
  const key = stopOf(view.worked, "lock_in")?.key;
  const latest = (probe: Schemas["Probe"]) =>
    view.standing.readings.filter((r) => r.probe === probe && r.stop === key).at(-1)?.value_c;
  const dough_c = latest("dough");
  const butter_c = latest("butter");
  const missing = [dough_c === undefined && "the dough", butter_c === undefined && "the butter"];
  return (
    <section className={classes.may} aria-label="May it go in?">
      {dough_c === undefined || butter_c === undefined ? (
        <p>
          Take the temperature of {missing.filter(Boolean).join(" and ")} and enter it; this then
          says whether the butter may go in.
        </p>
      ) : (
        <Judged plan={view.plan} dough_c={dough_c} butter_c={butter_c} />
      )}
    </section>
  );
}
