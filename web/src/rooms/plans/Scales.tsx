/** The board before anything is rolled: the formula or the tub, and what is weighed. */
import { Link } from "react-router";
import { madeAt } from "@/api/steps";
import { Tub } from "@/drawings/Tub";
import { useSaying } from "@/measures/likes";
import { WeighList } from "@/sheets/WeighList";
import type { PanelProps } from "@/steps/parts/props";
import formula from "./Formula.module.css";
import { FormulaTable } from "./FormulaTable";
import classes from "./PlanRoom.module.css";

export function Scales({ planId, ...props }: PanelProps & { planId: number }) {
  const { words } = useSaying();
  const { stop, worked } = props;
  const sheet = worked.sheets.find((s) => s.stop === stop.key);
  const preferment = madeAt(stop, "preferment");
  return (
    <>
      <section className={classes.above}>
        <h2>
          {preferment ? "In the tub" : "Formula"}{" "}
          <small>{preferment ? "from the side, to scale" : "one dough"}</small>
        </h2>
        {preferment ? <Tub {...preferment} /> : props.plan.formula && <FormulaTable {...props} />}
      </section>
      <section className={classes.side}>
        <h2>
          On the scales <small>{stop.name.toLowerCase()}</small>
        </h2>
        {sheet && <WeighList sheet={sheet} />}
        {stop.do === "mix" &&
          worked.formula?.rounding.map((text) => (
            <p key={text} className={formula.said}>
              {words(text)}
            </p>
          ))}
        <p className={formula.links}>
          <Link to={`/plans/${planId}/sheets`}>All sheets and labels to print</Link>
        </p>
      </section>
    </>
  );
}
