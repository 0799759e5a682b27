import {
  Button,
  Checkbox,
  Collapse,
  NativeSelect,
  NumberInput,
  TextInput,
  UnstyledButton,
  VisuallyHidden,
} from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { IconPlus, IconX } from "@tabler/icons-react";
import { useMutation } from "@tanstack/react-query";
import { useContext, useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { LayoutSearch } from "@/finish/LayoutSearch";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { hasHeight, reshaped, SHAPES, useUsualProducts, withProduct } from "../products";
import { Readout } from "../Readout";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { Amend, PanelProps } from "./props";

type Product = Schemas["Product"];

/** What the last sheet is cut into. */
export function CutPanel({ plan, worked, change, amend, select, readOnly }: PanelProps) {
  const { say } = useSaying();
  const [searching, setSearching] = useState(false);
  const usual = useUsualProducts();
  const start = useMutation({
    mutationFn: (family: Schemas["Family"]) =>
      got(api.GET("/api/finish/{family}", { params: { path: { family } } })),
    onSuccess: (finish) => change({ ...plan, finish }, "finish"),
  });
  const { cut } = plan;
  if (!cut || !worked.cut) return null;
  const set = (part: Partial<Schemas["Cut"]>, path: string) =>
    change({ ...plan, cut: { ...cut, ...part } }, path);
  const one = cut.products.length === 1;
  return (
    <>
      {cut.products.map((product, n) => (
        <ProductInputs
          // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
          key={n}
          {...{ n, product, amend, usual }}
          many={!one}
          made={worked.cut?.products[n]}
          set={(part, path) =>
            set(
              { products: cut.products.with(n, { ...product, ...part } as Product) },
              `cut.products[${n}].${path}`,
            )
          }
          remove={() => set({ products: cut.products.toSpliced(n, 1) }, "cut.products")}
        />
      ))}
      {!readOnly && cut.products.length < 8 && (
        <div className={classes.ways}>
          <Button
            variant="default"
            size="sm"
            leftSection={<IconPlus size={16} />}
            onClick={() =>
              set(
                {
                  products: withProduct(cut, worked.cut?.products.at(-1)?.rows ?? 1, usual)
                    .products,
                },
                "cut.products",
              )
            }
          >
            Another product
          </Button>
          <Button variant="default" size="sm" onClick={() => setSearching(true)}>
            Best layout
          </Button>
        </div>
      )}
      <div className={classes.pair}>
        <MeasureInput
          label="The blade eats"
          quantity="length"
          path="cut.kerf_mm"
          value={cut.kerf_mm}
          onChange={(v) => v !== null && set({ kerf_mm: v }, "cut.kerf_mm")}
        />
        <MeasureInput
          label="Off every edge"
          quantity="length"
          path="cut.trim_mm"
          value={cut.trim_mm}
          onChange={(v) => v !== null && set({ trim_mm: v }, "cut.trim_mm")}
        />
      </div>
      <MeasureInput
        label="Shrinks along the roll, after the cut"
        quantity="share"
        path="cut.shrink_pct"
        value={cut.shrink_pct}
        onChange={(v) => v !== null && set({ shrink_pct: v }, "cut.shrink_pct")}
      />
      <Checkbox
        label="Rows run across the sheet"
        checked={cut.across}
        onChange={(e) => set({ across: e.currentTarget.checked }, "cut.across")}
      />
      <dl className={classes.readouts}>
        <Readout worked={worked} of="cut.pieces" label="Pieces" value={String(worked.cut.pieces)} />
        <Readout
          worked={worked}
          label="Trimmings"
          value={`${say("mass", Math.round(worked.cut.trimmings_g))}, ${say("mass", Math.round(worked.cut.trimmings_butter_g))} butter`}
        />
      </dl>
      {!plan.finish && !readOnly && (
        <Button
          variant="default"
          loading={start.isPending}
          onClick={() => start.mutate(plan.family)}
        >
          Go on to proof and bake
        </Button>
      )}
      <Button
        variant="default"
        onClick={() => {
          select("final");
          change({ ...plan, cut: null, finish: null }, "cut");
        }}
      >
        No cut in this plan
      </Button>
      <Assumptions minutesKey="minutes.cut">
        <OwnMinutes
          path="cut.bench_min"
          value={cut.bench_min}
          onChange={(bench_min) => set({ bench_min }, "cut.bench_min")}
        />
      </Assumptions>
      {searching && (
        <LayoutSearch
          plan={plan}
          onClose={() => setSearching(false)}
          take={(made) => {
            change({ ...plan, cut: made }, "cut");
            setSearching(false);
          }}
        />
      )}
    </>
  );
}

interface ProductProps {
  n: number;
  product: Product;
  made?: Schemas["CutProduct"];
  many: boolean;
  usual: Product[];
  amend: Amend;
  set: (part: Partial<Product>, path: string) => void;
  remove: () => void;
}

function ProductInputs({ n, product, made, many, usual, amend, set, remove }: ProductProps) {
  const { say, words } = useSaying();
  const faults = useContext(FaultsContext);
  const [open, { toggle }] = useDisclosure(false);
  const path = `cut.products[${n}]`;
  const round = product.shape === "disc" || product.shape === "ring";
  const number = (v: number | null, field: keyof Product) =>
    v !== null && set({ [field]: v }, String(field));
  return (
    <fieldset className={classes.product}>
      <VisuallyHidden component="legend">{product.name}</VisuallyHidden>
      <div className={classes.pair}>
        <TextInput
          label="Product"
          value={product.name}
          maxLength={60}
          error={words(faults[`${path}.name`] ?? "")}
          onChange={(e) => set({ name: e.currentTarget.value }, "name")}
        />
        <NativeSelect
          label="Shape"
          value={product.shape}
          data={SHAPES}
          onChange={(e) =>
            set(reshaped(product, e.currentTarget.value as Schemas["Shape"], usual), "shape")
          }
        />
      </div>
      <div className={classes.pair}>
        <MeasureInput
          label={round ? "Across" : hasHeight(product.shape) ? "Base" : "Side"}
          quantity="length"
          path={`${path}.base_mm`}
          value={product.base_mm}
          onChange={(v) => number(v, "base_mm")}
        />
        {hasHeight(product.shape) && (
          <MeasureInput
            label="Height"
            quantity="length"
            path={`${path}.height_mm`}
            value={product.height_mm}
            onChange={(v) => number(v, "height_mm")}
          />
        )}
        {product.shape === "ring" && (
          <MeasureInput
            label="Hole"
            quantity="length"
            path={`${path}.hole_mm`}
            value={product.hole_mm}
            onChange={(v) => number(v, "hole_mm")}
          />
        )}
      </div>
      {made && (
        <p className={classes.said}>
          <b>
            {made.pieces} × {say("mass", made.piece_g)}
          </b>
          , {made.rows} {made.rows === 1 ? "row" : "rows"} of {made.per_row}{" "}
          <UnstyledButton className={classes.search} onClick={toggle} aria-expanded={open}>
            {many ? "Rows, weight, notch" : "Weight, notch"}
          </UnstyledButton>
        </p>
      )}
      <Collapse expanded={open} transitionDuration={0}>
        <div className={classes.pair}>
          <NumberInput
            label="Rows (0: all that fit)"
            min={0}
            max={50}
            allowDecimal={false}
            value={product.rows}
            error={words(faults[`${path}.rows`] ?? "")}
            onChange={(v) => typeof v === "number" && set({ rows: v }, "rows")}
          />
          {product.shape === "triangle" && (
            <MeasureInput
              label="Notch"
              quantity="length"
              path={`${path}.notch_mm`}
              value={product.notch_mm}
              onChange={(v) => number(v, "notch_mm")}
            />
          )}
        </div>
        {made && <HitWeight n={n} product={product} made={made} amend={amend} />}
        {many && (
          <Button
            variant="default"
            size="xs"
            mt={8}
            leftSection={<IconX size={14} />}
            onClick={remove}
          >
            No {product.name}
          </Button>
        )}
      </Collapse>
    </fieldset>
  );
}

/** A weight wanted: solved by the base, the height or the thickness of the sheet. */
function HitWeight({
  n,
  product,
  made,
  amend,
}: Pick<ProductProps, "n" | "product" | "amend"> & { made: Schemas["CutProduct"] }) {
  const [wanted, setWanted] = useState<number | null>(null);
  const path = `hit.${n}`;
  const by = (change: Schemas["Change"], label: string) => (
    <Button
      key={change}
      variant="default"
      size="xs"
      disabled={wanted === null}
      onClick={() => wanted !== null && amend({ change, index: n, value: wanted }, path)}
    >
      {label}
    </Button>
  );
  return (
    <div className={classes.ways}>
      <MeasureInput
        label="Each should weigh"
        quantity="mass"
        path={path}
        value={wanted ?? Math.round(10 * made.piece_g) / 10}
        onChange={setWanted}
      />
      {by("piece_base", hasHeight(product.shape) ? "By the base" : "By its size")}
      {hasHeight(product.shape) && by("piece_height", "By the height")}
      {by("piece_thickness", "By the thickness")}
    </div>
  );
}
