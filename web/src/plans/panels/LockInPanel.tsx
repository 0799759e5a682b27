import { Button, NativeSelect } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { useShelf } from "../ingredients";
import { Readout } from "../Readout";
import { RestInput } from "../RestInput";
import { MayItGoIn } from "./MayItGoIn";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

const METHODS: { value: Schemas["Method"]; label: string }[] = [
  { value: "half", label: "Half" },
  { value: "half_stacked", label: "Half, cut and stacked" },
  { value: "two_thirds", label: "Two-thirds" },
  { value: "envelope", label: "Envelope" },
  { value: "gate", label: "Gate" },
  { value: "open_sided", label: "Open-sided" },
  { value: "inverse", label: "Inverse: butter outside" },
  { value: "spread", label: "Spread all over" },
  { value: "two_go", label: "In two goes" },
  { value: "lumps", label: "Lumps: quick puff" },
];
const MARGINS = new Set(["half", "half_stacked", "two_thirds", "gate", "open_sided"]);

const WAYS: [Schemas["Change"], string, string][] = [
  ["block_frame", "Frame", "The two sides of the kitchen's frame"],
  ["block_tray", "Tray", "So that the dough lies on the kitchen's tray"],
  ["block_as_dough", "As thick as the dough", "By a bare margin that makes the dough thinner"],
];

/** The school of lock-in and the block. */
export function LockInPanel({ plan, worked, change, amend, readOnly, warmth }: PanelProps) {
  const { say, words } = useSaying();
  const shelf = useShelf(plan);
  const { butter } = plan;
  const setButter = (part: Partial<Schemas["Plan"]["butter"]>, path: string) =>
    change({ ...plan, butter: { ...butter, ...part } }, `butter.${path}`);
  const chosen = plan.lock_in;
  const set = (part: Partial<Schemas["Plan"]["lock_in"]>, path: string) =>
    change({ ...plan, lock_in: { ...chosen, ...part } }, path);
  const choose = (method: Schemas["Method"]) => {
    // An envelope wants a square: the same butter, the same thickness.
    const square = Math.round(Math.sqrt(chosen.block_width_mm * chosen.block_length_mm));
    set(
      method === "envelope"
        ? { method, block_width_mm: square, block_length_mm: square, margin_mm: 0 }
        : {
            method,
            overlap_mm: 0,
            ...(MARGINS.has(method) ? {} : { margin_mm: 0, off_centre_mm: 0 }),
          },
      "lock_in.method",
    );
  };
  const envelope = chosen.method === "envelope";
  const { block, dough_sheet } = worked.lock_in;
  return (
    <>
      <NativeSelect
        label="School"
        data={METHODS}
        value={chosen.method}
        onChange={(e) => choose(e.currentTarget.value as Schemas["Method"])}
      />
      <div className={classes.pair}>
        <MeasureInput
          label={envelope ? "Block side" : "Block width"}
          quantity="length"
          path="lock_in.block_width_mm"
          value={chosen.block_width_mm}
          onChange={(v) =>
            v !== null &&
            set(
              envelope ? { block_width_mm: v, block_length_mm: v } : { block_width_mm: v },
              "lock_in.block_width_mm",
            )
          }
        />
        {envelope ? (
          <MeasureInput
            label="Overlap"
            quantity="length"
            path="lock_in.overlap_mm"
            value={chosen.overlap_mm}
            onChange={(v) => v !== null && set({ overlap_mm: v }, "lock_in.overlap_mm")}
          />
        ) : (
          <MeasureInput
            label="Block length"
            quantity="length"
            path="lock_in.block_length_mm"
            value={chosen.block_length_mm}
            onChange={(v) => v !== null && set({ block_length_mm: v }, "lock_in.block_length_mm")}
          />
        )}
      </div>
      {chosen.method === "lumps" && (
        <MeasureInput
          label="Side of a lump"
          quantity="length"
          path="lock_in.lump_mm"
          value={chosen.lump_mm}
          onChange={(v) => v !== null && set({ lump_mm: v }, "lock_in.lump_mm")}
        />
      )}
      {MARGINS.has(chosen.method) && (
        <MeasureInput
          label="Bare margin round the block"
          quantity="length"
          path="lock_in.margin_mm"
          value={chosen.margin_mm}
          onChange={(v) => v !== null && set({ margin_mm: v }, "lock_in.margin_mm")}
        />
      )}
      {!readOnly && (
        <div className={classes.ways}>
          <MeasureInput
            label="Or its thickness"
            quantity="length"
            path="lock_in.thickness"
            value={Math.round(block.thickness_mm * 10) / 10}
            onLeaving
            onChange={(value) =>
              value !== null && amend({ change: "block_thickness", value }, "lock_in.thickness")
            }
          />
          {WAYS.map(([way, label, hint]) => (
            <Button
              key={way}
              variant="default"
              size="xs"
              px={8}
              title={hint}
              onClick={() => amend({ change: way }, "lock_in.thickness")}
            >
              {label}
            </Button>
          ))}
        </div>
      )}
      <dl className={classes.readouts}>
        <Readout
          worked={worked}
          of="lock_in.block.thickness_mm"
          label="Block thickness"
          value={say("length", block.thickness_mm)}
        />
        <Readout
          worked={worked}
          of="lock_in.dough_sheet.length_mm"
          label="Dough sheet"
          value={`${Math.round(dough_sheet.length_mm)} × ${say("length", Math.round(dough_sheet.width_mm))}`}
          size={dough_sheet}
        />
        <Readout
          worked={worked}
          of="lock_in.dough_sheet.thickness_mm"
          label="Dough thickness"
          value={say("length", dough_sheet.thickness_mm)}
        />
      </dl>
      <p className={classes.said}>{words(worked.butter.plaques.text)}</p>
      <NativeSelect
        label="Butter"
        value={butter.ingredient}
        data={[...shelf.values()]
          .filter((i) => i.kind === "fat")
          .map((i) => ({ value: i.key, label: i.name }))}
        description={
          worked.butter.window
            ? `works from ${say("temperature", worked.butter.window.plastic_from_c)} to ${say("temperature", worked.butter.window.plastic_to_c)}`
            : undefined
        }
        inputWrapperOrder={["label", "input", "description"]}
        onChange={(e) => setButter({ ingredient: e.currentTarget.value }, "ingredient")}
      />
      <div className={classes.pair}>
        <NativeSelect
          label="Folded back"
          value={String(butter.fold_back)}
          data={[
            { value: "0", label: "not" },
            { value: "2", label: "in two" },
            { value: "3", label: "in three" },
            { value: "4", label: "in four" },
          ]}
          onChange={(e) => setButter({ fold_back: Number(e.currentTarget.value) }, "fold_back")}
        />
        <MeasureInput
          label="Flour in it"
          quantity="share"
          path="butter.flour_pct"
          value={butter.flour_pct}
          onChange={(flour_pct) => flour_pct !== null && setButter({ flour_pct }, "flour_pct")}
        />
      </div>
      <MayItGoIn plan={plan} />
      <RestInput
        window={warmth?.windows.find((w) => w.stop === "lock_in")}
        label="Then rest"
        path="lock_in.rest"
        rest={chosen.rest}
        onChange={(rest) => set({ rest }, "lock_in.rest")}
      />
      <Assumptions minutesKey="minutes.lock_in">
        {MARGINS.has(chosen.method) && (
          <MeasureInput
            label="On purpose: block off centre by"
            quantity="length"
            path="lock_in.off_centre_mm"
            value={chosen.off_centre_mm}
            help="along the dough, to see what it costs"
            onChange={(v) => v !== null && set({ off_centre_mm: v }, "lock_in.off_centre_mm")}
          />
        )}
        <PlaqueInput
          plaque={butter.plaque}
          onChange={(plaque) => setButter({ plaque }, "plaque")}
        />
        <OwnMinutes
          path="lock_in.bench_min"
          value={chosen.bench_min}
          onChange={(bench_min) => set({ bench_min }, "lock_in.bench_min")}
        />
      </Assumptions>
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
