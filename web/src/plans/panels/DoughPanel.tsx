import { Button, NativeSelect, Textarea } from "@mantine/core";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { FAMILIES } from "../families";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

/** Dough and butter: masses, the share, and the first chill. */
export function DoughPanel({ plan, worked, change, amend, readOnly, warmth }: PanelProps) {
  const { dough, butter } = plan;
  const { words, say } = useSaying();
  const faults = useContext(FaultsContext);
  const setDough = (part: Partial<Schemas["Plan"]["dough"]>, path: string) =>
    change({ ...plan, dough: { ...dough, ...part } }, path);
  const setButter = (mass_g: number, path: string) =>
    change({ ...plan, butter: { ...butter, mass_g } }, path);
  const { butter_share, formula } = worked;
  const sharePct = (100 * butter.mass_g) / dough.mass_g;
  const wholePct = (100 * butter.mass_g) / (butter.mass_g + dough.mass_g);
  const tenth = (grams: number) => Math.round(grams * 10) / 10;
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
        onChange={(v) =>
          v !== null && setButter(Math.round(dough.mass_g * v) / 100, "butter.share")
        }
      />
      <div className={classes.pair}>
        <MeasureInput
          label="of the whole"
          quantity="share"
          path="butter.of_whole"
          value={wholePct}
          onChange={(v) =>
            v !== null &&
            v < 100 &&
            setButter(tenth((dough.mass_g * v) / (100 - v)), "butter.share")
          }
        />
        {formula && butter_share.of_flour_pct !== null && (
          <MeasureInput
            label="of the flour"
            quantity="share"
            path="butter.of_flour"
            value={butter_share.of_flour_pct}
            onChange={(v) =>
              v !== null && setButter(tenth((formula.flour_g * v) / 100), "butter.share")
            }
          />
        )}
      </div>
      <div className={classes.pair}>
        {worked.cut && (
          <MeasureInput
            label="Or pieces"
            quantity="number"
            path="dough.pieces"
            value={worked.cut.pieces}
            onLeaving
            help="dough and butter follow"
            onChange={(value) =>
              value !== null && amend({ change: "pieces", value }, "dough.pieces")
            }
          />
        )}
        {formula && (
          <MeasureInput
            label="Or flour at hand"
            quantity="mass"
            path="dough.flour"
            value={Math.round(formula.flour_g)}
            onLeaving
            help="all of it in one dough"
            onChange={(value) => value !== null && amend({ change: "flour", value }, "dough.flour")}
          />
        )}
      </div>
      {!formula && !readOnly && (
        <Button variant="default" onClick={() => amend({ change: "give_formula" }, "formula")}>
          Give it a formula
        </Button>
      )}
      <dl className={classes.readouts}>
        <Readout worked={worked} label="Slab on the tray" value="" size={worked.slab} />
        <Readout
          worked={worked}
          label="Slab thickness"
          value={say("length", worked.slab.thickness_mm)}
        />
      </dl>
      <RestInput
        window={warmth?.windows.find((w) => w.stop === "dough")}
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
          emptyMeans={formula ? "from the formula" : "from practice"}
          help={say("density", worked.dough.density_kg_m3)}
          onChange={(density_kg_m3) => setDough({ density_kg_m3 }, "dough.density_kg_m3")}
        />
        <MeasureInput
          label="Density of the butter"
          quantity="density"
          path="butter.density_kg_m3"
          value={butter.density_kg_m3}
          emptyMeans="from its kind"
          help={say("density", worked.butter.physics.density_kg_m3)}
          onChange={(density_kg_m3) =>
            change({ ...plan, butter: { ...butter, density_kg_m3 } }, "butter.density_kg_m3")
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
