import { Button, Checkbox, UnstyledButton } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { stepsOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { foldPath, Ribbon } from "@/drawings/Ribbon";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { otherFoldName } from "@/measures/words";
import { ClockReadout } from "../parts/ClockReadout";
import { HowToRoll } from "../parts/HowToRoll";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { RollToSize, RollToThickness } from "../parts/RollTo";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

/** One turn: the fold, the roll and the rest. */
function TurnPanel(panel: PanelProps<"turn">) {
  const { stop, step, made, set, worked, searchFolds, warmth } = panel;
  const { say, foldTitle, likes } = useSaying();
  const { words, multiplies } = useTrade();
  return (
    <>
      <Choice
        label="Fold"
        value={step.fold}
        onChange={(fold) => set({ fold }, "fold")}
        options={(words.fold ?? []).map(({ value }) => ({
          value: value as Schemas["Fold"],
          label: `${foldTitle(value)} ×${multiplies[value]}`,
          hint: `also ${otherFoldName(value, likes.folds)}`,
        }))}
      />
      <UnstyledButton className={classes.search} onClick={searchFolds}>
        Search all folds for this dough
      </UnstyledButton>
      <Checkbox
        label="Cut and stack, so that every edge stays open"
        checked={step.stacked}
        onChange={(e) => set({ stacked: e.currentTarget.checked }, "stacked")}
      />
      <RollToThickness {...panel} made={made?.rolled} to={step} />
      {made && <HowToRoll how={made.rolling} />}
      <StepRest panel={panel} label="Then rest" />
      {made && (
        <dl className={classes.readouts}>
          <ClockReadout worked={worked} clock={warmth?.clocks.find((c) => c.stop === stop.key)} />
          <Readout
            worked={worked}
            of={`${stop.key}.rolled.length_mm`}
            label="Sheet length"
            value={say("length", Math.round(made.rolled.length_mm))}
          />
          <Readout
            worked={worked}
            of={`${stop.key}.butter_layers`}
            label="Butter layers"
            value={String(made.butter_layers)}
          />
          <Readout
            worked={worked}
            label="All leaves"
            value={`${made.layers.total} (multiplying alone gives ${made.layers.naive})`}
          />
        </dl>
      )}
      <AddAnother {...panel} />
      <StepAssumes panel={panel} title="Trim, size and what may go wrong">
        <Trimming {...panel} />
        <RollToSize {...panel} made={made?.rolled} to={step} />
        {step.fold === "offset_book" && !step.stacked && (
          <StepMeasure
            panel={panel}
            name="seam_pct"
            label="The ends meet at"
            quantity="share"
            help="of the length"
          />
        )}
        <StepMeasure
          panel={panel}
          name="short_mm"
          label="On purpose: flaps fall short by"
          quantity="length"
          help="to see what it costs"
        />
        <StepMeasure
          panel={panel}
          name="uneven_pct"
          label="On purpose: one side thicker by"
          quantity="share"
          help="than the mean, to see what it costs"
        />
      </StepAssumes>
    </>
  );
}

function AddAnother({ stop, plan, amend, select, readOnly }: PanelProps<"turn">) {
  const most = useTrade().steps.find((k) => k.do === "turn")?.most ?? 0;
  if (readOnly) return null;
  return (
    <Button
      variant="default"
      disabled={stepsOf(plan, "turn").length >= most}
      onClick={() =>
        amend({ change: "add_step", ingredient: "turn", index: stop.n + 1 }, "steps", (made) =>
          select(made.steps[stop.n + 1]?.id ?? ""),
        )
      }
    >
      Add a turn after this
    </Button>
  );
}

/** What is cut off before the fold: kept, or tucked inside. */
function Trimming({ step, made, at, set }: PanelProps<"turn">) {
  const { say } = useSaying();
  const trim = step.trim ?? { ends_mm: 0, sides_mm: 0, tucked: false };
  const put = (part: Partial<typeof trim>, name: string) => {
    const next = { ...trim, ...part };
    set({ trim: next.ends_mm || next.sides_mm ? next : null }, `trim.${name}`);
  };
  const measure = (label: string, name: "ends_mm" | "sides_mm") => (
    <MeasureInput
      label={label}
      quantity="length"
      path={`${at}.trim.${name}`}
      value={trim[name]}
      onChange={(v) => v !== null && put({ [name]: v }, name)}
    />
  );
  return (
    <>
      <div className={classes.pair}>
        {measure("Trim off both ends", "ends_mm")}
        {measure("and off both sides", "sides_mm")}
      </div>
      {(trim.ends_mm > 0 || trim.sides_mm > 0) && (
        <Checkbox
          label="Tuck it inside"
          checked={trim.tucked}
          onChange={(e) => put({ tucked: e.currentTarget.checked }, "tucked")}
        />
      )}
      {made && made.trimmed_g > 0.5 && (
        <small className="quiet">{say("mass", Math.round(made.trimmed_g))} saved</small>
      )}
    </>
  );
}

export default kind("turn", {
  Glyph: ({ step }) => <Ribbon d={foldPath(step.fold)} />,
  Panel: TurnPanel,
  views: ["sheet", "folding", "cut", "warmth"],
});
