import { Button, NativeSelect } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { type Grip, linear } from "@/drawings/hands";
import { LEFT, RIGHT } from "@/drawings/Ribbon";
import { aboveAt } from "@/drawings/views";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { useShelf } from "../parts/ingredients";
import { MayItGoIn } from "../parts/MayItGoIn";
import classes from "../parts/panels.module.css";
import { type Given, kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";

const WAYS: [Schemas["Change"], string, string][] = [
  ["block_frame", "Frame", "The two sides of the kitchen's frame"],
  ["block_tray", "Tray", "So that the dough lies on the kitchen's tray"],
  [
    "block_as_dough",
    "As thick as the dough, by a margin",
    "By a bare margin that makes the dough thinner",
  ],
];

/** The way to lock in, the block and its butter. */
function LockInPanel(panel: PanelProps<"lock_in">) {
  const { plan, worked, stop, step, made, amend, at } = panel;
  const { say, words } = useSaying();
  const { options, margins } = useTrade();
  return (
    <>
      <NativeSelect
        label="Lock-in method"
        data={options("method")}
        value={step.method}
        onChange={(e) =>
          amend({ change: "method", ingredient: e.currentTarget.value }, `${at}.method`)
        }
      />
      <BlockInputs {...panel} />
      {made && (
        <dl className={classes.readouts}>
          {step.method !== "none" && (
            <Readout
              worked={worked}
              of={`${stop.key}.block.thickness_mm`}
              label="Butter thickness"
              value={say("length", made.block.thickness_mm)}
            />
          )}
          <Readout
            worked={worked}
            of={`${stop.key}.dough_sheet.length_mm`}
            label="Dough sheet"
            value=""
            size={made.dough_sheet}
          />
          <Readout
            worked={worked}
            of={`${stop.key}.dough_sheet.thickness_mm`}
            label="Dough thickness"
            value={say("length", made.dough_sheet.thickness_mm)}
          />
        </dl>
      )}
      {made?.plaques && <p className={classes.said}>{words(stop.does.slice(1).join(" "))}</p>}
      {step.method !== "none" && <ButterInputs {...panel} />}
      {step.method !== "none" && <MayItGoIn plan={plan} />}
      <StepRest panel={panel} label="Then rest" />
      <StepAssumes panel={panel}>
        {margins.includes(step.method) && (
          <StepMeasure
            panel={panel}
            name="off_centre_mm"
            label="On purpose: block off centre by"
            quantity="length"
            help="along the dough, to see what it costs"
          />
        )}
        <PlaqueInput
          plaque={plan.butter.plaque}
          onChange={(plaque) =>
            panel.change({ ...plan, butter: { ...plan.butter, plaque } }, "butter.plaque")
          }
        />
      </StepAssumes>
    </>
  );
}

/** The sides of the block, or its thickness, or what it should fit. */
function BlockInputs(panel: PanelProps<"lock_in">) {
  const { step, set, at, made, amend, readOnly } = panel;
  const { blocks, margins, squares } = useTrade();
  const envelope = step.method === "envelope";
  const square = squares.includes(step.method);
  const bare = step.method === "none";
  const path = `${at}.thickness`;
  return (
    <>
      <div className={classes.pair}>
        {square ? (
          <MeasureInput
            label="Block side"
            quantity="length"
            path={`${at}.block_width_mm`}
            value={step.block_width_mm}
            onChange={(v) =>
              v !== null && set({ block_width_mm: v, block_length_mm: v }, "block_width_mm")
            }
          />
        ) : (
          <StepMeasure
            panel={panel}
            name="block_width_mm"
            label={bare ? "Sheet width" : "Block width"}
            quantity="length"
          />
        )}
        {envelope ? (
          <StepMeasure panel={panel} name="overlap_mm" label="Overlap" quantity="length" />
        ) : (
          !square && (
            <StepMeasure
              panel={panel}
              name="block_length_mm"
              label={bare ? "Sheet length" : "Block length"}
              quantity="length"
            />
          )
        )}
        {step.method === "cross" && (
          <StepMeasure
            panel={panel}
            name="flap_pct"
            label="Flaps, of the middle"
            quantity="share"
            help="25 % wraps it evenly"
          />
        )}
      </div>
      {step.method === "share" && (
        <StepMeasure
          panel={panel}
          name="share_pct"
          label="Butter covers of the dough"
          quantity="share"
        />
      )}
      {step.method === "lumps" && (
        <StepMeasure panel={panel} name="lump_mm" label="Side of a lump" quantity="length" />
      )}
      {margins.includes(step.method) && (
        <StepMeasure
          panel={panel}
          name="margin_mm"
          label="Bare margin round the block"
          quantity="length"
        />
      )}
      {!readOnly && made && blocks.includes(step.method) && (
        <div className={classes.ways}>
          <MeasureInput
            label="Block thickness"
            quantity="length"
            path={path}
            value={Math.round(made.block.thickness_mm * 10) / 10}
            onLeaving
            onChange={(value) =>
              value !== null && amend({ change: "block_thickness", value }, path)
            }
          />
          {WAYS.map(([way, label, hint]) => (
            <Button
              key={way}
              variant="default"
              size="xs"
              px={8}
              title={hint}
              onClick={() => amend({ change: way }, path)}
            >
              {label}
            </Button>
          ))}
        </div>
      )}
    </>
  );
}

/** Which butter, how it is folded, and the flour in it. */
function ButterInputs({ plan, worked, change }: PanelProps<"lock_in">) {
  const { say } = useSaying();
  const shelf = useShelf(plan);
  const butters = useKitchen().data?.butters ?? [];
  const { butter } = plan;
  const { window } = worked.butter;
  const set = (part: Partial<Schemas["Butter"]>, name: string) =>
    change({ ...plan, butter: { ...butter, ...part } }, `butter.${name}`);
  const choices = [...new Set([butter.ingredient, ...butters])];
  return (
    <>
      <NativeSelect
        label="Butter"
        value={butter.ingredient}
        data={choices.map((value) => ({ value, label: shelf.get(value)?.name ?? value }))}
        description={`works from ${say("temperature", window.plastic_from_c)} to ${say("temperature", window.plastic_to_c)}`}
        inputWrapperOrder={["label", "input", "description"]}
        onChange={(e) => set({ ingredient: e.currentTarget.value }, "ingredient")}
      />
      <div className={classes.pair}>
        <NativeSelect
          label="Butter folded"
          value={String(butter.fold_back)}
          data={[
            { value: "0", label: "no" },
            { value: "2", label: "in two" },
            { value: "3", label: "in three" },
            { value: "4", label: "in four" },
          ]}
          onChange={(e) => set({ fold_back: Number(e.currentTarget.value) }, "fold_back")}
        />
        <MeasureInput
          label="Flour in it"
          quantity="share"
          path="butter.flour_pct"
          value={butter.flour_pct}
          onChange={(flour_pct) => flour_pct !== null && set({ flour_pct }, "flour_pct")}
        />
      </div>
    </>
  );
}

interface PlaqueProps {
  plaque: Schemas["Plan"]["butter"]["plaque"];
  onChange: (plaque: Schemas["Plan"]["butter"]["plaque"]) => void;
}

/** Another plaque than the kitchen's. */
function PlaqueInput({ plaque, onChange }: PlaqueProps) {
  const table = new Map(useKitchen().data?.table.map((d) => [d.key, d.value]));
  const now = plaque ?? {
    length_mm: table.get("plaque.length_mm") ?? 0,
    width_mm: table.get("plaque.width_mm") ?? 0,
    mass_g: table.get("plaque.mass_g") ?? 0,
  };
  const part = (label: string, name: "length_mm" | "width_mm" | "mass_g") => (
    <MeasureInput
      label={label}
      quantity={name === "mass_g" ? "mass" : "length"}
      path={`butter.plaque.${name}`}
      value={now[name]}
      onChange={(v) => v !== null && onChange({ ...now, [name]: v })}
    />
  );
  return (
    <>
      {part("A plaque weighs", "mass_g")}
      <div className={classes.pair}>
        {part("Plaque length", "length_mm")}
        {part("Plaque width", "width_mm")}
      </div>
      {plaque && (
        <Button variant="default" size="xs" onClick={() => onChange(null)}>
          The kitchen's plaque again
        </Button>
      )}
    </>
  );
}

function Dough({ d }: { d: string }) {
  return (
    <>
      <path d={d} fill="none" stroke="var(--dough-edge)" strokeWidth={7.6} />
      <path d={d} fill="none" stroke="var(--dough)" strokeWidth={6} />
    </>
  );
}

const Block = ({ x, y, width }: { x: number; y: number; width: number }) => (
  <rect
    x={x}
    y={y}
    width={width}
    height={7}
    fill="var(--butter)"
    stroke="var(--butter-edge)"
    strokeWidth={0.8}
  />
);

/** Butter and dough lying flat on each other, as many as are said, from the bottom up. */
const Flat = ({ of }: { of: ("butter" | "dough")[] }) => (
  <>
    {of.map((material, n) => (
      <rect
        // biome-ignore lint/suspicious/noArrayIndexKey: layers have no identity but their place
        key={n}
        x={LEFT + 2}
        y={22 + of.length * 3.6 - (n + 1) * 7.2}
        width={54}
        height={6.4}
        fill={`var(--${material})`}
        stroke={`var(--${material}-edge)`}
        strokeWidth={0.8}
      />
    ))}
  </>
);

const LOCK_INS: Record<Schemas["Method"], React.ReactNode> = {
  half_stacked: <Flat of={["dough", "butter", "dough"]} />,
  open_sided: <Flat of={["dough", "butter", "dough"]} />,
  gate: (
    <>
      <Dough d="M34,14 H16 A8,8 0 0 0 16,30 H56 A8,8 0 0 0 56,14 H38" />
      <Block x={14} y={18.5} width={44} />
    </>
  ),
  inverse: <Flat of={["butter", "dough", "butter"]} />,
  diamond: <Flat of={["butter", "dough", "butter"]} />,
  cross: <Flat of={["dough", "butter", "dough"]} />,
  share: (
    <>
      <Dough
        d={`M${LEFT + 3},22 H${RIGHT - 2} A6.5,6.5 0 0 1 ${RIGHT - 2},35 H${LEFT} A13,13 0 0 1 ${LEFT},9 H${RIGHT}`}
      />
      <Block x={LEFT} y={26} width={48} />
      <Block x={LEFT} y={11.5} width={34} />
    </>
  ),
  spread: <Flat of={["dough", "butter"]} />,
  two_go: <Flat of={["dough", "butter"]} />,
  none: <Flat of={["dough"]} />,
  lumps: (
    <>
      <rect
        x={12}
        y={10}
        width={54}
        height={24}
        rx={6}
        fill="var(--dough)"
        stroke="var(--dough-edge)"
      />
      {[18, 30, 43, 55].map((x, n) => (
        <rect
          key={x}
          x={x}
          y={n % 2 ? 21 : 14}
          width={6}
          height={6}
          fill="var(--butter)"
          stroke="var(--butter-edge)"
          strokeWidth={0.8}
        />
      ))}
    </>
  ),
  half: (
    <>
      <Dough d={`M${LEFT},30 H${RIGHT - 4} A8,8 0 0 0 ${RIGHT - 4},14 H${LEFT}`} />
      <Block x={LEFT} y={18.5} width={46} />
    </>
  ),
  two_thirds: (
    <>
      <Dough
        d={`M${LEFT + 3},22 H${RIGHT - 2} A6.5,6.5 0 0 1 ${RIGHT - 2},35 H${LEFT} A13,13 0 0 1 ${LEFT},9 H${RIGHT}`}
      />
      <Block x={LEFT} y={26} width={48} />
      <Block x={LEFT} y={11.5} width={48} />
    </>
  ),
  envelope: (
    <>
      <Dough d={`M34,14 H18 A8,8 0 0 0 18,30 H54 A8,8 0 0 0 54,14 H38`} />
      <Block x={16} y={18.5} width={40} />
    </>
  ),
};

/** The sides of the block as it lies on the dough, and the bare margin round it. */
function lockInGrips(panel: PanelProps<"lock_in">, given: Given) {
  const { step, at, set, plan, stop, worked } = panel;
  const { squares, margins } = given.trade;
  const drawn = aboveAt(stop, plan, worked);
  const { block, sheet, inside_out } = drawn;
  const limits = given.trade.limits.lock_in ?? {};
  if (!block || !panel.made) return {};
  // Butter round the dough: the block is the sheet itself, and the dough lies on it.
  const butter = inside_out ? { ...sheet, at_mm: 0, margin_mm: 0 } : block;
  const also = given.say("length", panel.made.block.thickness_mm);
  const side = (name: "block_length_mm" | "block_width_mm", label: string) => ({
    path: `${at}.${name}`,
    label,
    quantity: "length" as const,
    value: step[name],
    limits: limits[name],
    also: `${also} thick`,
  });
  if (squares.includes(step.method) || step.method === "envelope") {
    const turned = block.method === "envelope";
    // a corner of a block that lies askew stands half its diagonal from the middle of the dough
    const beside = step.method === "cross" ? [0, 2] : [butter.at_mm, 1];
    const [origin = 0, per = 1] = turned ? [sheet.length_mm / 2, Math.SQRT1_2] : beside;
    const middle = turned ? sheet.width_mm / 2 : butter.margin_mm + step.block_width_mm / 2;
    const half = turned ? 0 : step.block_width_mm / 2;
    const square: Grip = {
      ...side("block_width_mm", "Side of the block"),
      dir: "x",
      ...linear(origin, per),
      from: middle - half,
      to: middle + half,
      put: (v) => set({ block_width_mm: v, block_length_mm: v }, "block_width_mm"),
    };
    return { above: [square] };
  }
  const sides: Grip[] = [
    {
      ...side("block_length_mm", "Length of the block"),
      dir: "x",
      ...linear(butter.at_mm, 1),
      from: butter.margin_mm,
      to: butter.margin_mm + butter.width_mm,
      put: (v) => set({ block_length_mm: v }, "block_length_mm"),
    },
    {
      ...side("block_width_mm", "Width of the block"),
      dir: "y",
      ...linear(butter.margin_mm, 1),
      from: butter.at_mm,
      to: butter.at_mm + butter.length_mm,
      put: (v) => set({ block_width_mm: v }, "block_width_mm"),
    },
  ];
  const margin: Grip = {
    path: `${at}.margin_mm`,
    label: "Bare margin round the block",
    quantity: "length",
    value: step.margin_mm,
    limits: limits.margin_mm,
    dir: "x",
    ...linear(block.at_mm - step.margin_mm, 1),
    from: block.margin_mm,
    to: block.margin_mm + block.width_mm,
    put: (v) => set({ margin_mm: v }, "margin_mm"),
  };
  return { above: margins.includes(step.method) ? [...sides, margin] : sides };
}

export default kind("lock_in", {
  Glyph: ({ step }) => LOCK_INS[step.method],
  Panel: LockInPanel,
  grips: lockInGrips,
  views: ["sheet", "cut", "warmth"],
});
