import { NativeSelect, Textarea } from "@mantine/core";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { FAMILIES } from "../families";
import { RestInput } from "../RestInput";
import { OwnMinutes } from "./OwnMinutes";
import type { PanelProps } from "./props";

/** Dough and butter: masses, the share, and the first chill. */
export function DoughPanel({ plan, worked, change }: PanelProps) {
  const { dough, butter } = plan;
  const { words } = useSaying();
  const faults = useContext(FaultsContext);
  const setDough = (part: Partial<Schemas["Plan"]["dough"]>, path: string) =>
    change({ ...plan, dough: { ...dough, ...part } }, path);
  const setButter = (mass_g: number, path: string) =>
    change({ ...plan, butter: { ...butter, mass_g } }, path);
  const sharePct = (100 * butter.mass_g) / dough.mass_g;
  return (
    <>
      <MeasureInput
        label="Dough"
        quantity="mass"
        path="dough.mass_g"
        value={dough.mass_g}
        onChange={(v) => v !== null && setDough({ mass_g: v }, "dough.mass_g")}
      />
      <MeasureInput
        label="Butter"
        quantity="mass"
        path="butter.mass_g"
        value={butter.mass_g}
        onChange={(v) => v !== null && setButter(v, "butter.mass_g")}
      />
      <MeasureInput
        label="Butter share of the dough"
        quantity="share"
        path="butter.share"
        value={sharePct}
        help={`${worked.butter_share.of_whole_pct.toFixed(1)} % of the whole`}
        onChange={(v) =>
          v !== null && setButter(Math.round(dough.mass_g * v) / 100, "butter.share")
        }
      />
      <RestInput
        label="Then chill"
        path="dough.rest"
        rest={dough.rest}
        onChange={(rest) => setDough({ rest }, "dough.rest")}
      />
      <NativeSelect
        label="Family"
        value={plan.family}
        data={Object.entries(FAMILIES).map(([value, label]) => ({ value, label }))}
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
      <Assumptions minutesKey="minutes.dough">
        <MeasureInput
          label="Density of the dough"
          quantity="density"
          path="dough.density_kg_m3"
          value={dough.density_kg_m3}
          help="1120: cold, degassed yeasted dough"
          onChange={(v) => v !== null && setDough({ density_kg_m3: v }, "dough.density_kg_m3")}
        />
        <MeasureInput
          label="Density of the butter"
          quantity="density"
          path="butter.density_kg_m3"
          value={butter.density_kg_m3}
          help="940: 82 % fat, little air"
          onChange={(v) =>
            v !== null &&
            change({ ...plan, butter: { ...butter, density_kg_m3: v } }, "butter.density_kg_m3")
          }
        />
        <OwnMinutes
          path="dough.bench_min"
          value={dough.bench_min}
          onChange={(bench_min) => setDough({ bench_min }, "dough.bench_min")}
        />
      </Assumptions>
    </>
  );
}
