/** The two large places of the board: what lies there at the chosen stop. */
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { madeAt, made as madeOf, stepOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { shown } from "@/cold/axis";
import { FromSide } from "@/drawings/FromSide";
import { Tub } from "@/drawings/Tub";
import { sideAt } from "@/drawings/views";
import { BakeCurve } from "@/finish/BakeCurve";
import { Labels } from "@/finish/Labels";
import { ShapingCardView } from "@/finish/ShapingCardView";
import { TrayView } from "@/finish/TrayView";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { WeighList } from "@/sheets/WeighList";
import { kindOf } from "@/steps/kinds";
import type { PanelProps } from "@/steps/parts/props";
import formula from "./Formula.module.css";
import { FormulaTable } from "./FormulaTable";
import classes from "./PlanRoom.module.css";
import { type Place, SheetView, useSection } from "./SheetView";

type Props = PanelProps & {
  planId: number;
  bench?: { length_mm: number; width_mm: number };
};

export function Board({ bench, planId, ...props }: Props) {
  const [place, setPlace] = useState<Place>({ x: 0.5, y: 0.5, up: 0.5 });
  const [touched, setTouched] = useState(false);
  const [moment, setMoment] = useState<number | null>(null);
  const [keepThickness, setKeepThickness] = useState(false);
  const { say } = useSaying();
  const trade = useTrade();
  const { stop, plan, worked, warmth } = props;
  const views = kindOf(stop.do).views;
  const rolled = views?.includes("cut") ?? false;
  const at = { at_pct: Math.round(100 * place.y), crosswise: false, low_pct: 0, high_pct: 100 };
  const line = useSection(plan, stop.key, at, touched && rolled);
  if (stop.trays || stop.oven || stop.do === "look") return <Finished {...props} />;
  if (!views) return <Scales planId={planId} {...props} />;
  const side = sideAt(stop, worked);
  const grips =
    (!props.readOnly && kindOf(stop.do).grips?.(props, { trade, keepThickness, say })) || {};
  const here = touched ? stackAt(line.data, place) : undefined;
  return (
    <>
      <SheetView
        {...{ stop, plan, planId, worked, bench, place, warmth, moment, setMoment }}
        grips={grips.above}
        keepThickness={grips.side?.length ? keepThickness : undefined}
        setKeepThickness={setKeepThickness}
        setPlace={(to) => {
          setTouched(true);
          setPlace(to);
        }}
      />
      <section className={classes.side}>
        <h2>
          From the side <small>{here ? "at the place touched" : side?.state}</small>
        </h2>
        {side && here ? (
          <FromSide {...side} {...here} state="at the place touched" />
        ) : side ? (
          <FromSide
            {...side}
            grips={grips.side}
            cells_c={
              warmth && moment !== null
                ? warmth.trace.cells_c[shown(warmth.trace, moment)]
                : undefined
            }
          />
        ) : null}
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
  return {
    section: { bottom: stack.bottom, thickness_um: stack.leaves_um, whole: true },
    layers: {
      butter: stack.butter,
      total: stack.leaves_um.length,
      butter_um: stack.butter_um,
      dough_um: stack.dough_um,
    },
    size: { length_mm: 0, width_mm: 0, thickness_mm: stack.height_um / 1000 },
  };
}

/** Where nothing is rolled yet: the formula or the tub, and what is weighed. */
function Scales({ planId, ...props }: Omit<Props, "bench">) {
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
  const { said, round_shapes } = useTrade();
  const cut = stepOf(plan, "cut");
  const shape = madeOf(worked, "shape");
  const oven = stepOf(plan, "bake");
  const baked = madeOf(worked, "bake");
  if (!cut) return null;
  const n = Math.min(chosen, cut.products.length - 1);
  const product = cut.products[n];
  const on = shape?.trays.products[n];
  if (stop.do === "shape" && product && on && shape) {
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
            trays={shape.trays}
            name={product.name}
            round={round_shapes.includes(product.shape)}
          />
        </section>
        <section className={classes.side}>
          <h2>
            Shaping card <small>{product.own_card ? "your own" : said("card", product.card)}</small>
          </h2>
          <ShapingCardView product={product} />
        </section>
      </>
    );
  }
  const washed = madeAt(stop, "wash");
  return (
    <>
      <section className={classes.above}>
        <h2>
          In the oven <small>{oven?.bake.oven}, one load</small>
        </h2>
        {oven && baked && <BakeCurve bake={oven.bake} loads={baked.loads} />}
      </section>
      <section className={classes.side}>
        {stop.do === "look" ? (
          <>
            <h2>
              Labels <small>allergens of all of it</small>
            </h2>
            <Labels worked={worked} />
          </>
        ) : washed ? (
          <>
            <h2>
              Ready for the wash? <small>the signs decide</small>
            </h2>
            <ul>
              {washed.signs.map((sign) => (
                <li key={sign}>{sign}</li>
              ))}
            </ul>
          </>
        ) : (
          baked && (
            <>
              <h2>
                In the other oven <small>{baked.other_oven.oven}</small>
              </h2>
              <BakeCurve bake={baked.other_oven} loads={baked.loads} />
            </>
          )
        )}
      </section>
    </>
  );
}
