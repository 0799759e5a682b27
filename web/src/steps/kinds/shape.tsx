import { NativeSelect } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { stepOf, withStep } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { said } from "@/measures/quantity";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepRest } from "../parts/StepParts";
import { Thing } from "../parts/Thing";

const OWN = "own:";
/** As the core names it on a label that is not complete. */
const GREASE = "what the tins are greased with";
const PLAITED: Schemas["Card"][] = ["plait", "loaf"];

/** How each product is shaped and filled, and its rest after it: the proof, or the chill. */
function ShapePanel(panel: PanelProps<"shape">) {
  const { plan, worked, change, amend, made, step, stop } = panel;
  const { figure, say } = useSaying();
  const { options } = useTrade();
  const kitchen = useKitchen().data;
  const own = kitchen?.cards ?? [];
  const cut = stepOf(plan, "cut");
  if (!cut) return null;
  const n = plan.steps.indexOf(cut);
  const path = (product: number, field: string) => `steps[${n}].products[${product}].${field}`;
  const setProduct = (i: number, part: Partial<Schemas["Product"]>, field: string) => {
    const products = cut.products.map((p, j) => (j === i ? { ...p, ...part } : p));
    change(withStep(plan, n, { products }), path(i, field));
  };
  return (
    <>
      {cut.products.map((product, i) => {
        const on = made?.trays.products[i];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
          <div key={i} className={classes.product}>
            <NativeSelect
              label={`${product.name}: shaped as`}
              value={product.own_card ? `${OWN}${product.own_card}` : product.card}
              data={[
                ...options<string>("card"),
                ...own.map((c) => ({ value: `${OWN}${c.key}`, label: c.name })),
              ]}
              onChange={({ currentTarget: { value } }) =>
                amend(
                  {
                    change: "card",
                    index: i,
                    ingredient: value.startsWith(OWN) ? value.slice(OWN.length) : value,
                  },
                  path(i, "card"),
                )
              }
            />
            <div className={classes.pair}>
              <Thing
                label="Filling"
                placeholder="none"
                path={path(i, "filling")}
                value={product.filling ?? ""}
                onChange={(v) => setProduct(i, { filling: v || null }, "filling")}
              />
              <MeasureInput
                label="Filling in each"
                quantity="mass"
                path={path(i, "filling_g")}
                value={product.filling_g}
                onChange={(v) => v !== null && setProduct(i, { filling_g: v }, "filling_g")}
              />
            </div>
            {made?.filled[i] && (
              <p className={classes.said}>
                Filling is {said(made.filled[i]?.mass_pct ?? 0)} % of it
                {made.filled[i]?.volume_pct &&
                  `, ${said(made.filled[i]?.volume_pct ?? 0)} % by volume`}
              </p>
            )}
            {(PLAITED.includes(product.card) || product.strands > 1) && (
              <MeasureInput
                label="Strands to one piece"
                quantity="count"
                path={path(i, "strands")}
                value={product.strands}
                onChange={(v) => v !== null && setProduct(i, { strands: v }, "strands")}
              />
            )}
            <MeasureInput
              label="To a tray"
              quantity="count"
              path={path(i, "per_tray")}
              value={product.per_tray}
              emptyMeans="as many as fit"
              onChange={(v) => setProduct(i, { per_tray: v }, "per_tray")}
            />
            {on && (
              <dl className={classes.readouts}>
                <Readout
                  worked={worked}
                  of={`${stop.key}.trays.products[${i}].per_tray`}
                  label={`Baked about ${figure("length", Math.round(on.risen.length_mm))} × ${say("length", Math.round(on.risen.width_mm))}`}
                  value={`${on.per_tray} a tray`}
                />
              </dl>
            )}
          </div>
        );
      })}
      {(step.release || worked.labels.some((l) => l.unknown.includes(GREASE))) && (
        <Thing
          label="Tins are greased with"
          placeholder="not said"
          path={`${panel.at}.release`}
          value={step.release ?? ""}
          onChange={(v) => panel.set({ release: v || null }, "release")}
        />
      )}
      <StepRest panel={panel} label="Then" proofer />
      {made && (
        <dl className={classes.readouts}>
          <Readout
            worked={worked}
            label="Trays"
            value={String(made.trays.products.flatMap((p) => p.trays).length)}
          />
          <Readout
            worked={worked}
            label="Humidity"
            value={`${step.rest?.stays.find((s) => s.place === "proofer")?.humidity_pct ?? made.humidity_pct} %`}
          />
        </dl>
      )}
      <StepAssumes panel={panel} />
    </>
  );
}

export default kind("shape", {
  finished: true,
  Glyph: () => (
    <>
      <path
        d="M12,30 C16,14 56,14 60,30 C52,24 20,24 12,30 Z"
        fill="var(--dough)"
        stroke="var(--dough-edge)"
      />
      <path
        d="M26,19 L30,26 M36,17 V25 M46,19 L42,26"
        fill="none"
        stroke="var(--dough-edge)"
        strokeWidth={1.6}
      />
    </>
  ),
  facts: ({ made }) => {
    const trays = made?.trays.products.flatMap((p) => p.trays).length ?? 0;
    return `${trays} ${trays === 1 ? "tray" : "trays"}`;
  },
  Panel: ShapePanel,
});
