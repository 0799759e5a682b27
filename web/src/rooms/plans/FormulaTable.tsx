import { ActionIcon, NativeSelect } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { grouped, useShelf } from "@/steps/parts/ingredients";
import type { PanelProps } from "@/steps/parts/props";
import { Readout } from "@/steps/parts/Readout";
import classes from "./Formula.module.css";

type Formula = NonNullable<Schemas["Plan"]["formula"]>;

/** The formula: every ingredient in percent of all flour and in grams, either of them to edit. */
export function FormulaTable({ plan, worked, change, amend, readOnly }: PanelProps) {
  const shelf = useShelf(plan);
  const { options } = useTrade();
  const faults = useContext(FaultsContext);
  const { say, figure, words } = useSaying();
  const formula = plan.formula as Formula;
  const made = worked.formula;
  const set = (lines: Formula["lines"], path: string) =>
    change({ ...plan, formula: { ...formula, lines } }, path);
  const here = new Set(formula.lines.map((line) => line.ingredient));
  const absent = [...shelf.values()].filter((i) => !here.has(i.key));
  const parts = new Map(made?.parts.map((p) => [p.ingredient, p]));
  return (
    <fieldset disabled={readOnly} className={classes.formula}>
      {made && (
        <dl className={classes.balance}>
          <Readout
            worked={worked}
            of="formula.balance.nominal_hydration_pct"
            label="Hydration, water and milk"
            value={`${figure("share", made.balance.nominal_hydration_pct)} %`}
          />
          <Readout
            worked={worked}
            of="formula.balance.true_hydration_pct"
            label="True hydration"
            value={`${figure("share", made.balance.true_hydration_pct)} %`}
          />
          <Readout
            worked={worked}
            of="dough.density_kg_m3"
            label="Density, cold"
            value={say("density", worked.dough.density_kg_m3)}
          />
        </dl>
      )}
      <table className={classes.table}>
        <thead>
          <tr>
            <th scope="col">Ingredient</th>
            <th scope="col">of all flour</th>
            <th scope="col">in one dough</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {formula.lines.map((line, i) => (
            <Line
              key={line.ingredient}
              {...{ line, shelf, amend, here }}
              n={i}
              grams={parts.get(line.ingredient)?.grams ?? 0}
              measure={parts.get(line.ingredient)?.measure ?? null}
              put={(pct) =>
                set(
                  formula.lines.map((l, j) => (j === i ? { ...l, pct } : l)),
                  `formula.lines[${i}].pct`,
                )
              }
              leaveOut={() =>
                set(
                  formula.lines.filter((_, j) => j !== i),
                  `formula.lines[${i}].out`,
                )
              }
            />
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>
              {!readOnly && (
                <NativeSelect
                  aria-label="Add an ingredient"
                  value=""
                  error={words(faults["formula.lines"] ?? "")}
                  data={[
                    { value: "", label: "Add an ingredient" },
                    ...grouped(absent, options("kind")),
                  ]}
                  onChange={(e) =>
                    e.currentTarget.value &&
                    amend(
                      { change: "add_line", ingredient: e.currentTarget.value },
                      "formula.lines",
                    )
                  }
                />
              )}
            </td>
            <td>
              <b>{figure("percent", made?.total_pct ?? 0)} %</b>
            </td>
            <td>
              <b>{say("mass", Math.round(plan.dough.mass_g))}</b>
              {made?.feeding && (
                <small className="quiet">
                  {" "}
                  with {say("mass", Math.round(made.feeding.grams))} fed
                </small>
              )}
            </td>
            <td />
          </tr>
        </tfoot>
      </table>
    </fieldset>
  );
}

interface LineProps {
  line: Formula["lines"][number];
  n: number;
  grams: number;
  /** About how many cups or spoons that is. */
  measure: string | null;
  shelf: ReturnType<typeof useShelf>;
  /** The ingredients that have a line already. */
  here: Set<string>;
  amend: PanelProps["amend"];
  put: (pct: number) => void;
  leaveOut: () => void;
}

/** One ingredient: which, in percent and in grams, and the way to leave it out. */
function Line({ line, n, grams, measure, shelf, here, amend, put, leaveOut }: LineProps) {
  const faults = useContext(FaultsContext);
  const { words, likes } = useSaying();
  const { units } = likes;
  const what = shelf.get(line.ingredient);
  const name = what?.name ?? line.ingredient;
  const path = `formula.lines[${n}]`;
  const choices = [...shelf.values()].filter(
    (s) => s.kind === what?.kind && (s.key === line.ingredient || !here.has(s.key)),
  );
  return (
    <tr>
      <th scope="row">
        {choices.length > 1 ? (
          <NativeSelect
            aria-label={`${name}: another in its place`}
            variant="unstyled"
            value={line.ingredient}
            error={words(faults[`${path}.ingredient`] ?? "")}
            data={choices.map((s) => ({ value: s.key, label: s.name }))}
            onChange={({ currentTarget: { value: ingredient } }) =>
              amend({ change: "line_ingredient", index: n, ingredient }, `${path}.ingredient`)
            }
          />
        ) : (
          name
        )}
      </th>
      <td>
        <MeasureInput
          label={`${name}, percent`}
          hideLabel
          quantity="percent"
          path={`${path}.pct`}
          value={line.pct}
          onChange={(pct) => pct !== null && put(pct)}
        />
      </td>
      <td>
        <MeasureInput
          label={`${name}, grams`}
          hideLabel
          onLeaving
          quantity="mass"
          path={`${path}.grams`}
          value={Math.round(grams * 10) / 10}
          help={units === "imperial" && measure ? `about ${measure}` : undefined}
          onChange={(value) =>
            value !== null && amend({ change: "line_grams", index: n, value }, `${path}.grams`)
          }
        />
      </td>
      <td>
        <ActionIcon
          variant="subtle"
          color="dark"
          size={36}
          aria-label={`Leave out ${name}`}
          onClick={leaveOut}
        >
          <IconX size={16} />
        </ActionIcon>
      </td>
    </tr>
  );
}
