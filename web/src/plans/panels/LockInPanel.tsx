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

const METHODS: { value: Schemas["Method"]; label: string }[] = [
  { value: "half", label: "Half" },
  { value: "two_thirds", label: "Two-thirds" },
  { value: "envelope", label: "Envelope" },
];

/** The school of lock-in and the block. */
export function LockInPanel({ plan, worked, change }: PanelProps) {
  const { say } = useSaying();
  const chosen = plan.lock_in;
  const set = (part: Partial<Schemas["Plan"]["lock_in"]>, path: string) =>
    change({ ...plan, lock_in: { ...chosen, ...part } }, path);
  const choose = (method: Schemas["Method"]) => {
    // An envelope wants a square: the same butter, the same thickness.
    const square = Math.round(Math.sqrt(chosen.block_width_mm * chosen.block_length_mm));
    set(
      method === "envelope"
        ? { method, block_width_mm: square, block_length_mm: square, margin_mm: 0 }
        : { method, overlap_mm: 0 },
      "lock_in.method",
    );
  };
  const envelope = chosen.method === "envelope";
  const { block, dough_sheet } = worked.lock_in;
  return (
    <>
      <Choice label="School" tight options={METHODS} value={chosen.method} onChange={choose} />
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
      {!envelope && (
        <MeasureInput
          label="Bare margin round the block"
          quantity="length"
          path="lock_in.margin_mm"
          value={chosen.margin_mm}
          onChange={(v) => v !== null && set({ margin_mm: v }, "lock_in.margin_mm")}
        />
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
      <RestInput
        label="Then rest"
        path="lock_in.rest"
        rest={chosen.rest}
        onChange={(rest) => set({ rest }, "lock_in.rest")}
      />
      <Assumptions minutesKey="minutes.lock_in">
        <OwnMinutes
          path="lock_in.bench_min"
          value={chosen.bench_min}
          onChange={(bench_min) => set({ bench_min }, "lock_in.bench_min")}
        />
      </Assumptions>
    </>
  );
}
