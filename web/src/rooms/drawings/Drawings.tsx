/** For builders: every drawing there is, in its states, from the plans of this house. */
import { useQueries } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { usePlans, useWorked } from "@/api/queries";
import { madeAt, type Plan, type Stop, stepOf, type Worked } from "@/api/steps";
import { Title, Waiting } from "@/app/states";
import { useWarmth } from "@/cold/useWarmth";
import { WarmthChart } from "@/cold/WarmthChart";
import { WindowBar } from "@/cold/WindowBar";
import { Folding } from "@/drawings/Folding";
import { FromAbove } from "@/drawings/FromAbove";
import { FromSide } from "@/drawings/FromSide";
import { LeafMap } from "@/drawings/LeafMap";
import { FoldGlyph } from "@/drawings/Ribbon";
import { Tub } from "@/drawings/Tub";
import { sideAt } from "@/drawings/views";
import { BakeCurve } from "@/finish/BakeCurve";
import { StepDrawing } from "@/finish/ShapingCardView";
import { DRAWINGS } from "@/finish/shapingDrawings";
import { TrayView } from "@/finish/TrayView";
import { WeightChart } from "@/finish/WeightChart";
import { aboveOf } from "@/steps/above";
import { StopGlyph, Strip } from "@/steps/Strip";
import classes from "./Drawings.module.css";

export default function Drawings() {
  const plans = usePlans().data;
  const opened = useQueries({
    queries: (plans ?? []).map(({ id }) => ({
      queryKey: ["plan", id],
      queryFn: () => got(api.GET("/api/plans/{plan_id}", { params: { path: { plan_id: id } } })),
    })),
  });
  if (!plans) return <Waiting what="the drawings" />;
  return (
    <main id="room" className={classes.page}>
      <Title>Drawings</Title>
      <h1>Drawings</h1>
      <Folds />
      {opened.map(({ data }) => data && <OfPlan key={data.id} plan={data.plan} />)}
      <Cards />
      <Weights />
    </main>
  );
}

function Shown({ name, children, wide }: { name: string; children: ReactNode; wide?: boolean }) {
  return (
    <figure className={classes.shown} data-wide={wide || undefined}>
      <figcaption>{name}</figcaption>
      {children}
    </figure>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      <div className={classes.grid}>{children}</div>
    </section>
  );
}

const FOLDS: Schemas["Fold"][] = ["half", "letter", "book", "offset_book"];

const Folds = () => (
  <Group title="Folds">
    {FOLDS.map((fold) => (
      <Shown key={fold} name={fold}>
        <FoldGlyph fold={fold} />
      </Shown>
    ))}
  </Group>
);

/** Everything drawn of one plan, step by step. */
function OfPlan({ plan }: { plan: Plan }) {
  const worked = useWorked(plan).data;
  const warmth = useWarmth(plan, {}).data;
  const [chosen, choose] = useState<string | null>(null);
  if (!worked) return <Waiting what={plan.name} />;
  const names = new Map(worked.strip.map((s) => [s.key, s.name]));
  return (
    <Group title={plan.name}>
      <Shown name="strip" wide>
        <Strip
          {...{ plan, worked }}
          selected={chosen}
          onSelect={choose}
          windows={warmth?.windows ?? []}
        />
      </Shown>
      {worked.strip.map((stop) => (
        <OfStop key={stop.key} {...{ stop, plan, worked }} />
      ))}
      {warmth && (
        <Shown name="warmth" wide>
          <WarmthChart warmth={warmth} names={names} moment={0} look={() => {}} />
        </Shown>
      )}
      {warmth?.windows.map((w) => (
        <Shown key={w.stop} name={`window: ${names.get(w.stop)}`}>
          <WindowBar window={w} />
        </Shown>
      ))}
    </Group>
  );
}

function OfStop({ stop, plan, worked }: { stop: Stop; plan: Plan; worked: Worked }) {
  const step = plan.steps.find((s) => s.id === stop.key);
  const side = sideAt(stop, worked);
  const [turn, last, tub, shape, bake] = [
    madeAt(stop, "turn"),
    madeAt(stop, "last_sheet"),
    madeAt(stop, "preferment"),
    madeAt(stop, "shape"),
    madeAt(stop, "bake"),
  ];
  const product = stepOf(plan, "cut")?.products[0];
  if (!step) return null;
  const made = stop.made ?? undefined;
  const rolled: string[] = ["flatten", "lock_in", "turn", "last_sheet", "cut"];
  return (
    <>
      <Shown name={`${stop.name}: glyph`}>
        <StopGlyph {...{ stop, plan, worked, step, made }} />
      </Shown>
      {rolled.includes(stop.do) && (
        <Shown name={`${stop.name}: from above`}>
          <FromAbove {...aboveOf(stop, plan, worked)} />
        </Shown>
      )}
      {rolled.includes(stop.do) && side && (
        <Shown name={`${stop.name}: from the side`}>
          <FromSide {...side} />
        </Shown>
      )}
      {turn && step.do === "turn" && (
        <Shown name={`${stop.name}: folding`}>
          <Folding step={turn} stacked={step.stacked} />
        </Shown>
      )}
      {last && (
        <Shown name={`${stop.name}: leaves`}>
          <LeafMap
            sheet={last}
            map={last.map}
            layers={worked.layers}
            place={{ x: 0.5, y: 0.5 }}
            look={() => {}}
          />
        </Shown>
      )}
      {tub && (
        <Shown name={`${stop.name}: tub`}>
          <Tub {...tub} />
        </Shown>
      )}
      {shape?.trays.products[0] && product && (
        <Shown name={`${stop.name}: tray`}>
          <TrayView
            on={shape.trays.products[0]}
            trays={shape.trays}
            name={product.name}
            round={false}
          />
        </Shown>
      )}
      {bake && step.do === "bake" && (
        <Shown name={`${stop.name}: curve`}>
          <BakeCurve bake={step.bake} loads={bake.loads} />
        </Shown>
      )}
    </>
  );
}

const Cards = () => (
  <Group title="Shaping cards">
    {Object.keys(DRAWINGS).map((name) => (
      <Shown key={name} name={name}>
        <StepDrawing of={name} />
      </Shown>
    ))}
  </Group>
);

const GRAMS = [62, 63.5, 60.2, 61.8, 58.1, 66.4];

const Weights = () => (
  <Group title="Weights">
    <Shown name="none yet">
      <WeightChart grams={[]} target={62} />
    </Shown>
    <Shown name="some of them">
      <WeightChart grams={GRAMS} target={62} />
    </Shown>
  </Group>
);
