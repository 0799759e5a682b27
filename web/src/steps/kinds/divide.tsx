import { Button, Checkbox } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { sizeSaid } from "@/drawings/views";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { useOtherPart } from "../parts/otherPart";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

const PLACES = ["fridge", "freezer"];

/** How much goes on, and where the rest of it is put. */
function DividePanel(panel: PanelProps<"divide">) {
  const { step, made, set, stop, plan, worked, readOnly } = panel;
  const { options } = useTrade();
  const { say } = useSaying();
  const other = useOtherPart();
  const places = options<Schemas["Place"]>("place");
  return (
    <>
      <div className={classes.pair}>
        <StepMeasure
          panel={panel}
          name="goes_on_pct"
          label="Goes on"
          quantity="share"
          help={made && `= ${say("mass", made.goes_on_g)}`}
        />
        <StepMeasure
          panel={panel}
          name="goes_on_g"
          label="or by mass"
          quantity="mass"
          emptyMeans="by share"
        />
      </div>
      {!step.other && (
        <Choice
          label="The rest goes into the"
          value={step.put}
          options={places.filter((p) => PLACES.includes(p.value) || p.value === step.put)}
          onChange={(put) => set({ put }, "put")}
        />
      )}
      {made && (
        <dl className={classes.readouts}>
          <Readout
            worked={worked}
            of={`${stop.key}.goes_on_g`}
            label="Goes on"
            value={say("mass", made.goes_on_g)}
          />
          <Readout worked={worked} label="Put away" value={say("mass", made.away_g)} />
          <Readout
            worked={worked}
            label="Butter in the part put away"
            value={say("mass", made.away_butter_g)}
          />
        </dl>
      )}
      {!readOnly && !step.other && (
        <Button
          variant="default"
          loading={other.isPending}
          onClick={() => other.mutate({ plan, stop: stop.key })}
        >
          Plan the other part
        </Button>
      )}
      <Checkbox
        label="This plan uses the part that another plan put away"
        checked={step.other}
        onChange={(e) => set({ other: e.currentTarget.checked }, "other")}
      />
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel} />
    </>
  );
}

const rect = (x: number, y: number, long: number, wide: number) => [
  { x_mm: x, y_mm: y },
  { x_mm: x + long, y_mm: y },
  { x_mm: x + long, y_mm: y + wide },
  { x_mm: x, y_mm: y + wide },
];

export default kind("divide", {
  Glyph: () => (
    <>
      <rect x={9} y={14} width={26} height={20} fill="var(--dough)" stroke="var(--dough-edge)" />
      <rect
        x={41}
        y={14}
        width={22}
        height={20}
        fill="none"
        stroke="var(--dough-edge)"
        strokeDasharray="4 3"
      />
      <path d="M38,6 V40" stroke="var(--ink)" strokeWidth={1.5} />
    </>
  ),
  facts: ({ made }, { say }) => made && `${say("mass", made.goes_on_g)} on`,
  above: ({ made, stop }) => {
    if (!made) return null;
    const { goes_on: on, away } = made;
    const along = Math.abs(on.width_mm - away.width_mm) < 1e-6;
    const sheet = {
      length_mm: along ? on.length_mm + away.length_mm : on.length_mm,
      width_mm: along ? on.width_mm : on.width_mm + away.width_mm,
      thickness_mm: on.thickness_mm,
    };
    const [x, y] = along ? [on.length_mm, 0] : [0, on.width_mm];
    return {
      sheet,
      outlines: [rect(x, y, away.length_mm, away.width_mm)],
      describe: `${stop.name}: ${sizeSaid(on)} goes on, ${sizeSaid(away)} is put away.`,
      caption: "the pale part is put away",
      onBench: false,
    };
  },
  Panel: DividePanel,
  views: ["sheet", "warmth"],
});
