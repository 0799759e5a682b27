/** The two large places of the board: what lies there at the chosen stop. */
import { useState } from "react";
import { Link } from "react-router";
import { FromAbove } from "@/drawings/FromAbove";
import { FromSide } from "@/drawings/FromSide";
import { LeafMap } from "@/drawings/LeafMap";
import { Tub } from "@/drawings/Tub";
import { aboveAt, sideAt } from "@/drawings/views";
import { Choice } from "@/measures/Choice";
import { WeighList } from "@/sheets/WeighList";
import formula from "./Formula.module.css";
import { FormulaTable } from "./FormulaTable";
import classes from "./PlanRoom.module.css";
import type { PanelProps } from "./panels/props";

interface Props extends PanelProps {
  planId: number;
  bench?: { length_mm: number; width_mm: number };
}

export function Board({ bench, planId, ...props }: Props) {
  const [view, setView] = useState<"sheet" | "leaves">("sheet");
  const { stop, plan, worked } = props;
  if (stop.kind === "mix" || stop.kind === "preferment") {
    return <Scales planId={planId} {...props} />;
  }
  const last = stop.kind === "final" || stop.kind === "cut";
  const { length_mm, width_mm, thickness_mm } = worked.final;
  const above = aboveAt(stop, plan, worked);
  const side = sideAt(stop, worked);
  return (
    <>
      <section className={classes.above}>
        <div className={classes.viewHead}>
          <h2>
            From above <small>{above.caption}</small>
          </h2>
          {last && (
            <Choice
              label="Show"
              tight
              value={view}
              options={[
                { value: "sheet", label: "Sheet" },
                { value: "leaves", label: "Where the leaves are" },
              ]}
              onChange={setView}
            />
          )}
        </div>
        {last && view === "leaves" ? (
          <LeafMap
            sheet={{ length_mm, width_mm, thickness_mm }}
            map={worked.final.map}
            layers={worked.layers}
            cut={stop.kind === "cut" ? worked.cut : null}
          />
        ) : (
          <FromAbove {...above} bench={above.onBench ? bench : undefined} />
        )}
      </section>
      <section className={classes.side}>
        <h2>
          From the side <small>{side.state}</small>
        </h2>
        <FromSide {...side} />
      </section>
    </>
  );
}

/** Where nothing is rolled yet: the formula or the tub, and what is weighed. */
function Scales({ planId, ...props }: Omit<Props, "bench">) {
  const { stop, worked } = props;
  const sheet = worked.sheets.find((s) => s.stop === stop.key);
  const preferment = worked.formula?.preferments.find((p) => p.stop === stop.key);
  return (
    <>
      <section className={classes.above}>
        <h2>
          {preferment ? "In the tub" : "Formula"}{" "}
          <small>{preferment ? "from the side, to scale" : "one dough"}</small>
        </h2>
        {preferment ? <Tub {...preferment} /> : <FormulaTable {...props} />}
      </section>
      <section className={classes.side}>
        <h2>
          On the scales <small>{stop.name.toLowerCase()}</small>
        </h2>
        {sheet && <WeighList sheet={sheet} />}
        {stop.kind === "mix" &&
          worked.formula?.rounding.map((text) => (
            <p key={text} className={formula.said}>
              {text}
            </p>
          ))}
        <p className={formula.links}>
          <Link to={`/plans/${planId}/sheets`}>All sheets and labels to print</Link>
        </p>
      </section>
    </>
  );
}
