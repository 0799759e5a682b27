/** The board after the cut: trays and the shaping card, the bake, the labels. */
import { useState } from "react";
import { useParams } from "react-router";
import { madeAt, made as madeOf, stepOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { BakeCurve } from "@/finish/BakeCurve";
import { FryPan } from "@/finish/FryPan";
import { Labels } from "@/finish/Labels";
import { ShapingCardView } from "@/finish/ShapingCardView";
import { TrayView } from "@/finish/TrayView";
import { Choice } from "@/measures/Choice";
import type { PanelProps } from "@/steps/parts/props";
import classes from "./PlanRoom.module.css";

export function Finished({ stop, plan, worked }: Pick<PanelProps, "stop" | "plan" | "worked">) {
  const [chosen, setChosen] = useState(0);
  const planId = Number(useParams().planId) || null;
  const { said, round_shapes } = useTrade();
  const cut = stepOf(plan, "cut");
  const shape = madeOf(worked, "shape");
  const oven = stepOf(plan, "bake");
  const baked = madeOf(worked, "bake");
  const [pan, fried] = [stepOf(plan, "fry"), madeOf(worked, "fry")];
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
        {oven && baked && (
          <>
            <h2>
              In the oven <small>{oven.bake.oven}, one load</small>
            </h2>
            <BakeCurve bake={oven.bake} loads={baked.loads} />
          </>
        )}
        {pan && fried && (
          <>
            <h2>
              In the fat <small>one go, from above</small>
            </h2>
            <FryPan step={pan} made={fried} piece={shape?.trays.products[0]?.shaped} />
          </>
        )}
      </section>
      <section className={classes.side}>
        {stop.do === "look" || stop.do === "fry" ? (
          <>
            <h2>
              Labels <small>allergens of all of it</small>
            </h2>
            <Labels worked={worked} from={planId == null ? null : { plan: planId }} />
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
