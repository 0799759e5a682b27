import { Button, NativeSelect, UnstyledButton } from "@mantine/core";
import { IconPlus } from "@tabler/icons-react";
import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { LEFT, RIGHT } from "@/drawings/Ribbon";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { useShelf } from "../parts/ingredients";
import { lockInGrips } from "../parts/lockInGrips";
import { MayItGoIn } from "../parts/MayItGoIn";
import classes from "../parts/panels.module.css";
import { kind, type PanelProps } from "../parts/props";
import { Readout } from "../parts/Readout";
import { StepAssumes, StepMeasure, StepRest } from "../parts/StepParts";
import { Thing } from "../parts/Thing";

const WAYS: [Schemas["Change"], string, string][] = [
  ["block_frame", "Use the sides of the frame", "The two sides of the kitchen's frame"],
  ["block_tray", "Fit the dough to the tray", "So that the dough lies on the kitchen's tray"],
  [
    "block_as_dough",
    "Match the dough with a bare margin",
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
            label="Flap thickness, share of the middle"
            quantity="share"
            help="25 % wraps it evenly"
          />
        )}
      </div>
      {step.method === "share" && (
        <StepMeasure
          panel={panel}
          name="share_pct"
          label="Share of the dough under butter"
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
      <InBlock holds={butter.holds} onChange={(holds) => set({ holds }, "holds")} />
    </>
  );
}

type Holds = Schemas["Plan"]["butter"]["holds"];

/** What else is worked into the butter: cocoa, herbs, a second fat. */
function InBlock({ holds, onChange }: { holds: Holds; onChange: (holds: Holds) => void }) {
  const put = (n: number, part: Partial<Holds[number]>) =>
    onChange(holds.map((one, k) => (k === n ? { ...one, ...part } : one)));
  return (
    <>
      {holds.map((one, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a line is where it stands
        <div key={n} className={classes.pair}>
          <Thing
            label="In the butter"
            value={one.what}
            path={`butter.holds[${n}].what`}
            onChange={(what) => put(n, { what })}
          />
          <MeasureInput
            label="Of the butter"
            quantity="share"
            path={`butter.holds[${n}].pct`}
            value={one.pct}
            emptyMeans="none"
            onChange={(pct) => (pct ? put(n, { pct }) : onChange(holds.filter((_, k) => k !== n)))}
          />
        </div>
      ))}
      {holds.length < 4 && (
        <UnstyledButton
          className={classes.then}
          onClick={() => onChange([...holds, { what: "cocoa", pct: 5 }])}
        >
          <IconPlus size={15} aria-hidden /> Something worked into the butter
        </UnstyledButton>
      )}
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

export const LOCK_INS: Record<Schemas["Method"], React.ReactNode> = {
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

export default kind("lock_in", {
  Glyph: ({ step }) => LOCK_INS[step.method],
  Panel: LockInPanel,
  terms: ({ method }) => [`method.${method}`, "margin", "plaque"],
  grips: lockInGrips,
  views: ["sheet", "cut", "warmth"],
});
