import { Button, Checkbox, NativeSelect, Textarea } from "@mantine/core";
import { useContext, useRef } from "react";
import type { Schemas } from "@/api/client";
import { made } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepRest } from "../parts/StepParts";

/** Dough and butter: masses, the share, and the first chill. */
function FlattenPanel(panel: PanelProps<"flatten">) {
  const { plan, worked, made: slab, change, readOnly, amend } = panel;
  const { dough } = plan;
  const { words, say } = useSaying();
  const { options } = useTrade();
  const faults = useContext(FaultsContext);
  const setDough = (part: Partial<Schemas["Dough"]>, path: string) =>
    change({ ...plan, dough: { ...dough, ...part } }, path);
  return (
    <>
      <Masses {...panel} />
      {!plan.formula && !readOnly && (
        <Button variant="default" onClick={() => amend({ change: "give_formula" }, "formula")}>
          Give it a formula
        </Button>
      )}
      {slab && (
        <dl className={classes.readouts}>
          <Readout worked={worked} label="Slab on the tray" value="" size={slab.slab} />
          <Readout
            worked={worked}
            label="Slab thickness"
            value={say("length", slab.slab.thickness_mm)}
          />
        </dl>
      )}
      <StepRest panel={panel} label="Then chill" />
      <NativeSelect
        label="Family"
        value={plan.family}
        data={options("family")}
        onChange={(e) =>
          change({ ...plan, family: e.currentTarget.value as Schemas["Family"] }, "family")
        }
      />
      <Textarea
        label="To remember about this dough"
        autosize
        minRows={2}
        maxRows={6}
        value={plan.words}
        error={words(faults.words ?? "")}
        onChange={(e) => change({ ...plan, words: e.currentTarget.value }, "words")}
      />
      <StepAssumes panel={panel}>
        <MeasureInput
          label="Density of the dough"
          quantity="density"
          path="dough.density_kg_m3"
          value={dough.density_kg_m3}
          emptyMeans={plan.formula ? "from the formula" : "from practice"}
          help={say("density", worked.dough.density_kg_m3)}
          onChange={(density_kg_m3) => setDough({ density_kg_m3 }, "dough.density_kg_m3")}
        />
        <MeasureInput
          label="Density of the butter"
          quantity="density"
          path="butter.density_kg_m3"
          value={plan.butter.density_kg_m3}
          emptyMeans="from its kind"
          help={say("density", worked.butter.physics.density_kg_m3)}
          onChange={(density_kg_m3) =>
            change({ ...plan, butter: { ...plan.butter, density_kg_m3 } }, "butter.density_kg_m3")
          }
        />
      </StepAssumes>
    </>
  );
}

/** How much of each: either of them, or a share of something, or pieces or flour it must be enough for. */
function Masses({ plan, worked, change, amend }: PanelProps<"flatten">) {
  const { dough, butter } = plan;
  const { butter_share, formula } = worked;
  const cut = made(worked, "cut");
  // the share that is kept is the one there was before a figure was typed
  const now = { dough_g: dough.mass_g, share_pct: butter_share.of_dough_pct };
  const before = useRef(now);
  const follow = () => {
    const { dough_g, share_pct } = before.current;
    if (!butter.by_weight && dough.mass_g !== dough_g)
      amend({ change: "butter_share", value: share_pct }, "dough.mass_g");
  };
  const share = (label: string, what: Schemas["Change"], value: number) => (
    <MeasureInput
      label={label}
      quantity="share"
      path={`butter.${what}`}
      value={value}
      onChange={(v) => v !== null && amend({ change: what, value: v }, `butter.${what}`)}
    />
  );
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the focus of what is in it only passes through */}
      <div
        onFocus={() => {
          before.current = now;
        }}
        onBlur={follow}
      >
        <MeasureInput
          label="Dough"
          quantity="mass"
          path="dough.mass_g"
          value={dough.mass_g}
          onChange={(mass_g) =>
            mass_g !== null && change({ ...plan, dough: { ...dough, mass_g } }, "dough.mass_g")
          }
        />
      </div>
      <MeasureInput
        label="Butter"
        quantity="mass"
        path="butter.mass_g"
        value={butter.mass_g}
        onChange={(mass_g) =>
          mass_g !== null && change({ ...plan, butter: { ...butter, mass_g } }, "butter.mass_g")
        }
      />
      <Checkbox
        label="Keep this weight of butter"
        description={
          butter.by_weight
            ? "whatever the dough weighs"
            : "off: its share stays when the dough changes"
        }
        checked={butter.by_weight}
        onChange={({ currentTarget: { checked } }) =>
          change({ ...plan, butter: { ...butter, by_weight: checked } }, "butter.by_weight")
        }
      />
      {share("Butter share of the dough", "butter_share", butter_share.of_dough_pct)}
      <div className={classes.pair}>
        {share("of the whole", "butter_of_whole", butter_share.of_whole_pct)}
        {butter_share.of_flour_pct !== null &&
          share("of the flour", "butter_of_flour", butter_share.of_flour_pct)}
      </div>
      <div className={classes.pair}>
        {cut && (
          <MeasureInput
            label="Pieces wanted"
            quantity="number"
            path="dough.pieces"
            value={cut.pieces}
            onLeaving
            help="dough and butter follow"
            onChange={(value) =>
              value !== null && amend({ change: "pieces", value }, "dough.pieces")
            }
          />
        )}
        {formula && (
          <MeasureInput
            label="Flour at hand"
            quantity="mass"
            path="dough.flour"
            value={Math.round(formula.flour_g)}
            onLeaving
            help="all of it in one dough"
            onChange={(value) => value !== null && amend({ change: "flour", value }, "dough.flour")}
          />
        )}
      </div>
    </>
  );
}

export default kind("flatten", {
  Glyph: () => (
    <rect
      x={10}
      y={12}
      width={54}
      height={20}
      rx={7}
      fill="var(--dough)"
      stroke="var(--dough-edge)"
    />
  ),
  facts: ({ plan }, { say }) => say("mass", plan.dough.mass_g),
  Panel: FlattenPanel,
  views: ["sheet", "warmth"],
});
