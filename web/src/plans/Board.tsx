/** The two large places of the board: what lies there at the chosen stop. */
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { shown } from "@/cold/axis";
import { FromSide } from "@/drawings/FromSide";
import { Tub } from "@/drawings/Tub";
import { sideAt } from "@/drawings/views";
import { BakeCurve } from "@/finish/BakeCurve";
import { Labels } from "@/finish/Labels";
import { ShapingCardView } from "@/finish/ShapingCardView";
import { TrayView } from "@/finish/TrayView";
import { Choice } from "@/measures/Choice";
import { WeighList } from "@/sheets/WeighList";
import formula from "./Formula.module.css";
import { FormulaTable } from "./FormulaTable";
import classes from "./PlanRoom.module.css";
import type { PanelProps } from "./panels/props";
import { CARD_NAMES } from "./products";
import { type Place, SheetView, useSection } from "./SheetView";

interface Props extends PanelProps {
  planId: number;
  bench?: { length_mm: number; width_mm: number };
}

export function Board({ bench, planId, ...props }: Props) {
  const [place, setPlace] = useState<Place>({ x: 0.5, y: 0.5, up: 0.5 });
  const [touched, setTouched] = useState(false);
  const [moment, setMoment] = useState<number | null>(null);
  const { stop, plan, worked, warmth } = props;
  const rolled = !["mix", "preferment", "dough"].includes(stop.kind);
  const at = { at_pct: Math.round(100 * place.y), crosswise: false, low_pct: 0, high_pct: 100 };
  const line = useSection(plan, stop.key, at, touched && rolled);
  if (stop.kind === "mix" || stop.kind === "preferment") {
    return <Scales planId={planId} {...props} />;
  }
  if (["shape", "wash", "bake", "look"].includes(stop.kind)) return <Finished {...props} />;
  const side = sideAt(stop, worked);
  const here = touched ? stackAt(line.data, place) : undefined;
  return (
    <>
      <SheetView
        {...{ stop, plan, planId, worked, bench, place, warmth, moment, setMoment }}
        setPlace={(to) => {
          setTouched(true);
          setPlace(to);
        }}
      />
      <section className={classes.side}>
        <h2>
          From the side <small>{here ? "at the place touched" : side.state}</small>
        </h2>
        {here ? (
          <FromSide {...side} {...here} state="at the place touched" />
        ) : (
          <FromSide
            {...side}
            cells_c={
              warmth && moment !== null
                ? warmth.trace.cells_c[shown(warmth.trace, moment)]
                : undefined
            }
          />
        )}
      </section>
    </>
  );
}

/** A stack of a section as the side view draws it. */
function stackAt(section: Schemas["LineSection"] | undefined, place: Place) {
  const x = place.x * (section?.length_mm ?? 0);
  const column = section?.columns.find((c) => x <= c.to_mm);
  const stack = column && section?.stacks[column.stack];
  if (!section || !stack?.leaves_um.length) return undefined;
  const ofKind = (butter: boolean) =>
    stack.leaves_um.filter((_, i) => ((stack.bottom === "butter") === (i % 2 === 0)) === butter);
  const mean = (of: number[]) => of.reduce((a, b) => a + b, 0) / Math.max(of.length, 1);
  const leaves = stack.leaves_um.length;
  return {
    section: { bottom: stack.bottom, thickness_um: stack.leaves_um, whole: true },
    layers: {
      butter: stack.butter,
      total: leaves,
      butter_um: mean(ofKind(true)),
      dough_um: mean(ofKind(false)),
    },
    size: { length_mm: 0, width_mm: 0, thickness_mm: stack.height_um / 1000 },
  };
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

/** After the cut: trays and the shaping card, the bake, the labels. */
function Finished({ stop, plan, worked }: Omit<Props, "bench" | "planId">) {
  const [chosen, setChosen] = useState(0);
  const { cut, finish } = plan;
  const made = worked.finish;
  if (!cut || !finish || !made) return null;
  const n = Math.min(chosen, cut.products.length - 1);
  const product = cut.products[n];
  const on = made.trays.products[n];
  if (stop.kind === "shape" && product && on) {
    return (
      <>
        <section className={classes.above}>
          <div className={classes.viewHead}>
            <h2>
              On the tray{" "}
              <small>
                {on.per_tray} × {product.name}, dashed as large as they get
              </small>
            </h2>
            {cut.products.length > 1 && (
              <Choice
                label="Product"
                tight
                value={String(n)}
                options={cut.products.map((p, i) => ({ value: String(i), label: p.name }))}
                onChange={(v) => setChosen(Number(v))}
              />
            )}
          </div>
          <TrayView
            on={on}
            trays={made.trays}
            name={product.name}
            round={product.shape === "disc" || product.shape === "ring"}
          />
        </section>
        <section className={classes.side}>
          <h2>
            Shaping card <small>{CARD_NAMES[product.card]}</small>
          </h2>
          <ShapingCardView card={product.card} />
        </section>
      </>
    );
  }
  return (
    <>
      <section className={classes.above}>
        <h2>
          In the oven <small>{finish.bake.oven}, one load</small>
        </h2>
        <BakeCurve bake={finish.bake} loads={made.loads} />
      </section>
      <section className={classes.side}>
        {stop.kind === "look" ? (
          <>
            <h2>
              Labels <small>allergens of all of it</small>
            </h2>
            <Labels worked={worked} />
          </>
        ) : (
          <>
            <h2>
              {stop.kind === "wash" ? "Ready for the wash?" : "In the other oven"}{" "}
              <small>{stop.kind === "wash" ? "the signs decide" : made.other_oven.oven}</small>
            </h2>
            {stop.kind === "wash" ? (
              <ul>
                {made.signs.map((sign) => (
                  <li key={sign}>{sign}</li>
                ))}
              </ul>
            ) : (
              <BakeCurve bake={made.other_oven} loads={made.loads} />
            )}
          </>
        )}
      </section>
    </>
  );
}
