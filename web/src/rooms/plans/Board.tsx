/** The two large places of the board: what lies there at the chosen stop. */
import { Suspense, useState } from "react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { shown } from "@/cold/axis";
import { FromSide } from "@/drawings/FromSide";
import { sideAt } from "@/drawings/views";
import { useSaying } from "@/measures/likes";
import { kindOf } from "@/steps/kinds";
import type { PanelProps } from "@/steps/parts/props";
import { lazily } from "@/wire/lazily";
import classes from "./PlanRoom.module.css";
import { type Place, SheetView, useSection } from "./SheetView";

const Finished = lazily(async () => (await import("./Finished")).Finished);
const Scales = lazily(async () => (await import("./Scales")).Scales);

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
  if (kindOf(stop.do).finished) {
    return (
      <Suspense fallback={<section className={classes.above} />}>
        <Finished {...props} />
      </Suspense>
    );
  }
  if (!views) {
    return (
      <Suspense fallback={<section className={classes.above} />}>
        <Scales planId={planId} {...props} />
      </Suspense>
    );
  }
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
