import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./Book.module.css";

/** What was really weighed, in percent of all flour, beside the formula. */
export function UsedTable({ used }: { used: Schemas["Used"] }) {
  const { say, figure } = useSaying();
  return (
    <section>
      <h2>Really used</h2>
      <p className="quiet">
        True hydration {figure("share", used.true_hydration_pct)} %
        {Math.abs(used.true_hydration_pct - used.planned_hydration_pct) >= 0.1 &&
          `, planned ${figure("share", used.planned_hydration_pct)} %`}
        {used.unweighed > 0 && ` · ${used.unweighed} not ticked, taken as planned`}
      </p>
      <table className={classes.deeds}>
        <thead>
          <tr>
            <th scope="col">Ingredient</th>
            <th scope="col">Formula</th>
            <th scope="col">Used</th>
            <th scope="col">of flour</th>
          </tr>
        </thead>
        <tbody>
          {used.parts.map((p) => {
            const off = Math.abs(p.used_g - p.planned_g) > 0.05;
            return (
              <tr key={p.name}>
                <td>{p.name}</td>
                <td>{say("mass", Math.round(p.planned_g * 10) / 10)}</td>
                <td>
                  {off ? (
                    <b>{say("mass", Math.round(p.used_g * 10) / 10)}</b>
                  ) : (
                    <span className="quiet">as weighed out</span>
                  )}
                </td>
                <td>{figure("percent", p.used_pct)} %</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
