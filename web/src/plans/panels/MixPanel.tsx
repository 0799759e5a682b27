import { Button, Checkbox } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

type Formula = NonNullable<Schemas["Plan"]["formula"]>;
type Mixing = Formula["mixing"];

const DEVELOPMENT: { value: Mixing["development"]; label: string; hint: string }[] = [
  { value: "short", label: "Short", hint: "A stretched piece tears at once" },
  { value: "three_quarters", label: "Three-quarters", hint: "A window tears or stays cloudy" },
  { value: "full", label: "Full", hint: "A window is clear and holds" },
];

/** The mixing day: water, programme, what is set the day before, and old dough fed back. */
export function MixPanel({ plan, worked, change, amend, readOnly, warmth }: PanelProps) {
  const { say } = useSaying();
  const formula = plan.formula as Formula;
  const { mixing, old_dough } = formula;
  const water = worked.formula?.water;
  const set = (part: Partial<Formula>, path: string) =>
    change({ ...plan, formula: { ...formula, ...part } }, `formula.${path}`);
  const mix = (part: Partial<Mixing>, path: string) =>
    set({ mixing: { ...mixing, ...part } }, `mixing.${path}`);
  const measure = (
    label: string,
    name: "wanted_c" | "flour_c" | "tap_c" | "slow_min" | "fast_min",
  ) => (
    <MeasureInput
      label={label}
      quantity={name.endsWith("_c") ? "temperature" : "time"}
      path={`formula.mixing.${name}`}
      value={mixing[name]}
      onChange={(v) => v !== null && mix({ [name]: v }, name)}
    />
  );
  return (
    <>
      {!readOnly && formula.preferments.length < 3 && (
        <div className={classes.pair}>
          {(["poolish", "sponge"] as const).map((preferment) => (
            <Button
              key={preferment}
              variant="default"
              px={6}
              onClick={() => amend({ change: "add_preferment", preferment }, "formula.preferments")}
            >
              {preferment === "poolish" ? "Add a poolish" : "Add a sponge"}
            </Button>
          ))}
        </div>
      )}
      <div className={classes.pair}>
        {measure("Dough wanted at", "wanted_c")}
        {measure("Flour is at", "flour_c")}
        {measure("Tap runs at", "tap_c")}
        <dl className={classes.readouts}>
          {water && (
            <Readout
              worked={worked}
              of="formula.water.water_c"
              label={water.ice_g > 0 ? "Ice" : "Water"}
              value={
                water.ice_g > 0
                  ? say("mass", Math.round(water.ice_g))
                  : say("temperature", water.water_c)
              }
            />
          )}
        </dl>
        {measure("Slow", "slow_min")}
        {measure("Fast", "fast_min")}
      </div>
      <Choice
        label="Developed"
        tight
        value={mixing.development}
        options={DEVELOPMENT}
        onChange={(development) => mix({ development }, "development")}
      />
      <RestInput
        window={warmth?.windows.find((w) => w.stop === "mix")}
        label="Then rest"
        path="formula.mixing.rest"
        rest={mixing.rest}
        onChange={(rest) => mix({ rest }, "rest")}
      />
      <MeasureInput
        label="Old dough fed back"
        quantity="share"
        path="formula.old_dough.share_pct"
        value={old_dough?.share_pct ?? null}
        emptyMeans="none"
        help="share of the new dough"
        onChange={(share_pct) =>
          set(
            { old_dough: share_pct ? { laminated: true, ...old_dough, share_pct } : null },
            "old_dough.share_pct",
          )
        }
      />
      {old_dough && (
        <Checkbox
          label="Trimmings, with their butter"
          checked={old_dough.laminated}
          onChange={(e) =>
            set(
              { old_dough: { ...old_dough, laminated: e.currentTarget.checked } },
              "old_dough.laminated",
            )
          }
        />
      )}
      <Checkbox
        label="Whole eggs only"
        checked={formula.whole_eggs}
        onChange={(e) => set({ whole_eggs: e.currentTarget.checked }, "whole_eggs")}
      />
      <Assumptions minutesKey="minutes.mix">
        <OwnMinutes
          path="formula.mixing.bench_min"
          value={mixing.bench_min}
          onChange={(bench_min) => mix({ bench_min }, "bench_min")}
        />
        {!readOnly && (
          <Button variant="default" onClick={() => change({ ...plan, formula: null }, "formula")}>
            No formula in this plan
          </Button>
        )}
      </Assumptions>
    </>
  );
}
