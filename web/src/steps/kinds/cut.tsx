import {
  Button,
  Checkbox,
  Collapse,
  NativeSelect,
  TextInput,
  UnstyledButton,
  VisuallyHidden,
} from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { IconPlus, IconX } from "@tabler/icons-react";
import { useMutation } from "@tanstack/react-query";
import { Suspense, useContext, useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { type Plan, type Step, stepOf, stopOf, type Worked } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { lazily } from "@/wire/lazily";
import { cutGrips } from "../parts/cutGrips";
import classes from "../parts/panels.module.css";
import { reshaped, useUsualProducts, withProduct } from "../parts/products";
import { type Amend, kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";
import { endedAtCut } from "./look";

const LayoutSearch = lazily(async () => (await import("@/finish/LayoutSearch")).LayoutSearch);

type Product = Schemas["Product"];
const MOST_PRODUCTS = 8;

/** The plan without its cut and what follows it. */
const withoutCut = (plan: Plan, worked: Worked): Plan => {
  const ended = endedAtCut(plan, worked);
  return { ...ended, steps: ended.steps.filter((s) => s.do !== "cut" && s.do !== "offcuts") };
};

/** What the last sheet is cut into. */
function CutPanel(panel: PanelProps<"cut">) {
  const { plan, worked, step: cut, made, at, set, change, amend, select, readOnly } = panel;
  const { say } = useSaying();
  const [searching, setSearching] = useState(false);
  const usual = useUsualProducts();
  const one = cut.products.length === 1;
  const coil = plan.steps.some((s) => s.do === "roll_up");
  return (
    <>
      {cut.products.map((product, n) => (
        <ProductInputs
          // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
          key={n}
          {...{ n, product, amend, usual }}
          at={`${at}.products[${n}]`}
          many={!one}
          slice={coil}
          made={made?.products[n]}
          set={(part, name) =>
            set(
              { products: cut.products.with(n, { ...product, ...part } as Product) },
              `products[${n}].${name}`,
            )
          }
          remove={() => set({ products: cut.products.toSpliced(n, 1) }, "products")}
        />
      ))}
      {!readOnly && cut.products.length < MOST_PRODUCTS && (
        <div className={classes.ways}>
          <Button
            variant="default"
            size="sm"
            // before the usual products are known a press would add nothing
            disabled={usual.length === 0}
            leftSection={<IconPlus size={16} />}
            onClick={() =>
              set(
                { products: withProduct(cut, made?.products.at(-1)?.rows ?? 1, usual).products },
                "products",
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
        <StepMeasure panel={panel} name="kerf_mm" label="Lost per cut" quantity="length" />
        <StepMeasure panel={panel} name="trim_mm" label="Off every edge" quantity="length" />
      </div>
      <StepMeasure
        panel={panel}
        name="shrink_pct"
        label="Shrinks along the roll, after the cut"
        quantity="share"
      />
      {!coil && (
        <>
          <Checkbox
            label="Rows run across the sheet"
            checked={cut.across}
            onChange={(e) => set({ across: e.currentTarget.checked }, "across")}
          />
          <Checkbox
            label="Press the whole grid first"
            checked={cut.grid}
            onChange={(e) => set({ grid: e.currentTarget.checked }, "grid")}
          />
        </>
      )}
      {made && (
        <dl className={classes.readouts}>
          <Readout
            worked={worked}
            of={`${panel.stop.key}.pieces`}
            label="Pieces"
            value={String(made.pieces)}
          />
          <Readout
            worked={worked}
            of={`${panel.stop.key}.trimmings_g`}
            label="Trimmings"
            value={`${say("mass", Math.round(made.trimmings_g))}, ${say("mass", Math.round(made.trimmings_butter_g))} butter`}
          />
        </dl>
      )}
      {!readOnly && <GoOn {...panel} />}
      {!readOnly && (
        <Button
          variant="default"
          onClick={() => {
            select(stopOf(worked, "last_sheet")?.key ?? "");
            change(withoutCut(plan, worked), "steps");
          }}
        >
          Remove the cut
        </Button>
      )}
      <StepRest panel={panel} label="Pieces rest" />
      <StepAssumes panel={panel} />
      <Suspense>
        {searching && (
          <LayoutSearch
            plan={plan}
            onClose={() => setSearching(false)}
            take={(laid) => {
              set({ ...laid, id: cut.id }, "products");
              setSearching(false);
            }}
          />
        )}
      </Suspense>
    </>
  );
}

/** From the cut to proof, wash and bake, as the family usually has them. */
function GoOn({ plan, change }: PanelProps<"cut">) {
  const start = useMutation({
    mutationFn: (family: Schemas["Family"]) =>
      got(api.GET("/api/finish/{family}", { params: { path: { family } } })),
    onSuccess: ({ steps }) =>
      change(
        { ...plan, steps: [...plan.steps, ...steps.map((s) => ({ ...s, id: s.do }) as Step)] },
        "steps",
      ),
  });
  if (stepOf(plan, "shape") || stepOf(plan, "bake")) return null;
  return (
    <Button variant="default" loading={start.isPending} onClick={() => start.mutate(plan.family)}>
      Go on to proof and bake
    </Button>
  );
}

interface ProductProps {
  n: number;
  /** Where the product lies in the plan. */
  at: string;
  product: Product;
  made?: Schemas["CutProduct"];
  many: boolean;
  /** The sheet is rolled up: a product is a slice of the coil. */
  slice: boolean;
  usual: Product[];
  amend: Amend;
  set: (part: Partial<Product>, path: string) => void;
  remove: () => void;
}

function ProductInputs(props: ProductProps) {
  const { n, at: path, product, made, many, slice, usual, amend, set, remove } = props;
  const { say, words } = useSaying();
  const { options, round_shapes, tall_shapes } = useTrade();
  const faults = useContext(FaultsContext);
  const [open, { toggle }] = useDisclosure(false);
  const round = !slice && round_shapes.includes(product.shape);
  const tall = !slice && tall_shapes.includes(product.shape);
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
        {!slice && (
          <NativeSelect
            label="Shape"
            value={product.shape}
            data={options("shape")}
            onChange={(e) =>
              set(reshaped(product, e.currentTarget.value as Schemas["Shape"], usual), "shape")
            }
          />
        )}
      </div>
      <div className={classes.pair}>
        <MeasureInput
          label={slice ? "Slices of" : round ? "Across" : tall ? "Base" : "Side"}
          quantity="length"
          path={`${path}.base_mm`}
          value={product.base_mm}
          onChange={(v) => number(v, "base_mm")}
        />
        {tall && (
          <MeasureInput
            label="Height"
            quantity="length"
            path={`${path}.height_mm`}
            value={product.height_mm}
            onChange={(v) => number(v, "height_mm")}
          />
        )}
        {!slice && product.shape === "ring" && (
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
            {many ? "Rows, aim for a weight" : "Aim for a weight"}
          </UnstyledButton>
        </p>
      )}
      <Collapse expanded={open} transitionDuration={0}>
        <div className={classes.pair}>
          <MeasureInput
            label="Rows"
            quantity="count"
            path={`${path}.rows`}
            value={product.rows || null}
            onChange={(v) => set({ rows: v ?? 0 }, "rows")}
            emptyMeans="all that fit"
          />
          {round && (
            <NativeSelect
              label="Rows lie"
              value={product.nested === null ? "" : String(product.nested)}
              data={[
                { value: "", label: "whichever gives more pieces" },
                { value: "false", label: "side by side" },
                { value: "true", label: "in each other's gaps" },
              ]}
              onChange={({ currentTarget: { value } }) =>
                set({ nested: value ? value === "true" : null }, "nested")
              }
            />
          )}
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
        {n > 0 && !slice && (
          <Checkbox
            mt={8}
            label="At the ends of the rows of the product before"
            checked={product.beside}
            onChange={(e) => set({ beside: e.currentTarget.checked }, "beside")}
          />
        )}
        {n > 0 && !slice && (
          <Checkbox
            mt={8}
            label="Rows the other way, in the band that is left"
            checked={product.crosswise}
            onChange={(e) => set({ crosswise: e.currentTarget.checked }, "crosswise")}
          />
        )}
        {made && <HitWeight n={n} tall={tall} made={made} amend={amend} />}
        {many && (
          <Button
            variant="default"
            size="xs"
            mt={8}
            leftSection={<IconX size={14} />}
            onClick={remove}
          >
            Remove {product.name}
          </Button>
        )}
      </Collapse>
    </fieldset>
  );
}

/** A weight wanted: solved by the base, the height or the thickness of the sheet. */
function HitWeight({
  n,
  tall,
  made,
  amend,
}: Pick<ProductProps, "n" | "amend"> & { tall: boolean; made: Schemas["CutProduct"] }) {
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
      {by("piece_base", tall ? "Change the base" : "Change its size")}
      {tall && by("piece_height", "Change the height")}
      {by("piece_thickness", "Change the thickness")}
    </div>
  );
}

/** So many pieces beside each other: the first at `from`, each `step` further, drawn by `of`. */
const inRow = (many: number, from: number, step: number, of: (x: number) => string) =>
  Array.from({ length: many }, (_, i) => of(from + step * i)).join(" ");
const box = (y: number, width: number, height: number) => (x: number) =>
  `M${x},${y} h${width} v${height} h${-width} z`;
const disc = (r: number) => (x: number) =>
  `M${x - r},22 a${r},${r} 0 1 0 ${2 * r},0 a${r},${r} 0 1 0 ${-2 * r},0 z`;

const CUTS: Record<Schemas["Shape"], string> = {
  triangle: inRow(4, 12, 12, (x) => `M${x},34 h12 l-6,-24 z`),
  square: inRow(3, 12, 17, box(15, 14, 14)),
  disc: inRow(3, 19, 17, disc(7.4)),
  ring: inRow(3, 19, 17, (x) => `${disc(7.4)(x)} ${disc(3.4)(x)}`),
  strip: inRow(5, 14, 9, box(9, 6, 26)),
  rectangle: inRow(3, 12, 17, box(13, 14, 19)),
};

export default kind("cut", {
  Glyph: ({ step }) =>
    step.products[0] && (
      <path
        d={CUTS[step.products[0].shape]}
        fill="var(--dough)"
        fillRule="evenodd"
        stroke="var(--dough-edge)"
      />
    ),
  facts: ({ made }, { say }) =>
    made &&
    `${made.pieces} pieces · ${made.products.length === 1 ? say("mass", made.piece_g) : `${made.products.length} kinds`}`,
  Panel: CutPanel,
  terms: () => ["straight_edge", "kerf"],
  grips: cutGrips,
  views: ["sheet", "marks", "leaves", "cut", "warmth"],
});
