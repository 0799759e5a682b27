import { Button } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { restIn } from "../rests";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

type Formula = NonNullable<Schemas["Plan"]["formula"]>;
type Preferment = Formula["preferments"][number];

/** What a preferment takes of the formula, and how long it ripens. */
export function PrefermentPanel({ stop, plan, worked, change, select, readOnly }: PanelProps) {
  const { say } = useSaying();
  const formula = plan.formula as Formula;
  const index = Number(stop.key.slice("preferment-".length)) - 1;
  const chosen = formula.preferments[index];
  const made = worked.formula?.preferments[index];
  if (!chosen || !made) return null;
  const path = `formula.preferments[${index}]`;
  const put = (preferments: Formula["preferments"], at: string) =>
    change({ ...plan, formula: { ...formula, preferments } }, at);
  const set = (part: Partial<Preferment>, name: string) =>
    put(
      formula.preferments.map((p, i) => (i === index ? { ...p, ...part } : p)),
      `${path}.${name}`,
    );
  const share = (
    label: string,
    name: "flour_pct" | "hydration_pct" | "yeast_pct",
    help: string,
  ) => (
    <MeasureInput
      label={label}
      quantity="percent"
      path={`${path}.${name}`}
      value={chosen[name]}
      help={help}
      onChange={(v) => v !== null && set({ [name]: v }, name)}
    />
  );
  return (
    <>
      <Choice
        label="Kind"
        tight
        value={chosen.kind}
        options={[
          { value: "poolish", label: "Poolish" },
          { value: "sponge", label: "Stiff sponge" },
        ]}
        onChange={(kind) => set({ kind }, "kind")}
      />
      {share("Flour in it", "flour_pct", "of all flour")}
      {share(
        "Its hydration",
        "hydration_pct",
        `${made.liquid_share_pct.toFixed(0)} % of the liquid`,
      )}
      {share("Yeast in it", "yeast_pct", "of all yeast")}
      <dl className={classes.readouts}>
        <Readout
          worked={worked}
          of={`formula.preferments[${index}].tub_l`}
          label="Tub, at least"
          value={`${made.tub_l.toFixed(1)} l`}
        />
        <Readout worked={worked} label="In all" value={say("mass", Math.round(made.total_g))} />
      </dl>
      <RestInput
        label="Ripens"
        path={`${path}.rest`}
        rest={chosen.rest}
        onChange={(rest) => set({ rest: rest ?? restIn(chosen.rest.place, 0) }, "rest")}
      />
      {!readOnly && (
        <Button
          variant="default"
          onClick={() => {
            select("mix");
            put(
              formula.preferments.filter((_, i) => i !== index),
              `${path}.away`,
            );
          }}
        >
          Take it away
        </Button>
      )}
      <Assumptions minutesKey="minutes.preferment">
        <OwnMinutes
          path={`${path}.bench_min`}
          value={chosen.bench_min}
          onChange={(bench_min) => set({ bench_min }, "bench_min")}
        />
      </Assumptions>
    </>
  );
}
