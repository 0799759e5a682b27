import { Button } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { ClockReadout } from "../ClockReadout";
import { HowToRoll } from "../HowToRoll";
import { plainCut, useUsualProducts } from "../products";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";
import { UnevenInput } from "./UnevenInput";

/** The last sheet. */
export function FinalPanel({ plan, worked, change, warmth }: PanelProps) {
  const { say, leaf } = useSaying();
  const usual = useUsualProducts();
  const { final } = plan;
  const set = (part: Partial<Schemas["Plan"]["final"]>, path: string) =>
    change({ ...plan, final: { ...final, ...part } }, path);
  return (
    <>
      <MeasureInput
        label="Roll to"
        quantity="length"
        path="final.roll_to_mm"
        value={final.roll_to_mm}
        onChange={(v) => v !== null && set({ roll_to_mm: v }, "final.roll_to_mm")}
      />
      <MeasureInput
        label="Width"
        quantity="length"
        path="final.width_mm"
        value={final.width_mm}
        emptyMeans="as it comes"
        onChange={(width_mm) => set({ width_mm }, "final.width_mm")}
      />
      <HowToRoll how={worked.final.rolling} />
      <RestInput
        window={warmth?.windows.find((w) => w.stop === "final")}
        label="Then let it shrink"
        path="final.rest"
        rest={final.rest}
        onChange={(rest) => set({ rest }, "final.rest")}
      />
      <dl className={classes.readouts}>
        <ClockReadout worked={worked} clock={warmth?.clocks.find((c) => c.stop === "final")} />
        <Readout
          worked={worked}
          of="final.length_mm"
          label="Sheet length"
          value={say("length", Math.round(worked.final.length_mm))}
        />
        <Readout
          worked={worked}
          of="layers.butter_um"
          label="Butter leaf"
          value={leaf(worked.layers.butter_um)}
        />
        <Readout
          worked={worked}
          of="layers.butter_um"
          label="Dough leaf"
          value={leaf(worked.layers.dough_um)}
        />
      </dl>
      {!plan.cut && (
        <Button variant="default" onClick={() => change({ ...plan, cut: plainCut(usual) }, "cut")}>
          Plan the cut
        </Button>
      )}
      <Assumptions minutesKey="minutes.final" title="Minutes, and what may go wrong">
        <UnevenInput
          path="final.uneven_pct"
          value={final.uneven_pct}
          onChange={(uneven_pct) => set({ uneven_pct }, "final.uneven_pct")}
        />
        <OwnMinutes
          path="final.bench_min"
          value={final.bench_min}
          onChange={(bench_min) => set({ bench_min }, "final.bench_min")}
        />
      </Assumptions>
    </>
  );
}
