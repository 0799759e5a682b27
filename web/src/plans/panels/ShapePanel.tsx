import { Autocomplete, NativeSelect } from "@mantine/core";
import { useContext } from "react";
import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { CARD_NAMES } from "../products";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

/** How each product is shaped and filled, and its rest after it: the proof, or the chill. */
export function ShapePanel({ plan, worked, change, warmth }: PanelProps) {
  const { figure, say, words } = useSaying();
  const faults = useContext(FaultsContext);
  const kitchen = useKitchen();
  const { cut, finish } = plan;
  if (!cut || !finish || !worked.finish) return null;
  const set = (part: Partial<Schemas["Finish"]>, path: string) =>
    change({ ...plan, finish: { ...finish, ...part } }, path);
  const setProduct = (n: number, part: Partial<Schemas["Product"]>, field: string) => {
    const products = cut.products.map((p, i) => (i === n ? { ...p, ...part } : p));
    change({ ...plan, cut: { ...cut, products } }, `cut.products[${n}].${field}`);
  };
  const shelf = kitchen.data?.ingredients.map((i) => i.key) ?? [];
  return (
    <>
      {cut.products.map((product, n) => {
        const on = worked.finish?.trays.products[n];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
          <div key={n} className={classes.product}>
            <NativeSelect
              label={`${product.name}: shaped as`}
              value={product.card}
              data={Object.entries(CARD_NAMES).map(([value, label]) => ({ value, label }))}
              onChange={(e) =>
                setProduct(n, { card: e.currentTarget.value as Schemas["Card"] }, "card")
              }
            />
            <div className={classes.pair}>
              <Autocomplete
                label="Filling"
                placeholder="none"
                data={shelf}
                maxLength={40}
                value={product.filling ?? ""}
                error={words(faults[`cut.products[${n}].filling`] ?? "")}
                onChange={(v) => setProduct(n, { filling: v || null }, "filling")}
              />
              <MeasureInput
                label="of it in each"
                quantity="mass"
                path={`cut.products[${n}].filling_g`}
                value={product.filling_g}
                onChange={(v) => v !== null && setProduct(n, { filling_g: v }, "filling_g")}
              />
            </div>
            {on && (
              <p className={classes.said}>
                Baked about {figure("length", Math.round(on.risen.length_mm))} ×{" "}
                {say("length", Math.round(on.risen.width_mm))}: <b>{on.per_tray} a tray</b>
              </p>
            )}
          </div>
        );
      })}
      <RestInput
        label="Then"
        path="finish.rest"
        proofer
        rest={finish.rest}
        window={warmth?.windows.find((w) => w.stop === "shape")}
        onChange={(rest) => set({ rest }, "finish.rest")}
      />
      <dl className={classes.readouts}>
        <Readout
          worked={worked}
          label="Trays"
          value={String(worked.finish.trays.products.flatMap((p) => p.trays).length)}
        />
        <Readout worked={worked} label="Humidity" value={`${worked.finish.humidity_pct} %`} />
      </dl>
      <Assumptions minutesKey="minutes.shape">
        <OwnMinutes
          path="finish.shape_min"
          value={finish.shape_min}
          onChange={(shape_min) => set({ shape_min }, "finish.shape_min")}
        />
      </Assumptions>
    </>
  );
}
