import { Button } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { Assumptions } from "../Assumptions";
import { Readout } from "../Readout";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

/** What the last sheet is cut into. */
export function CutPanel({ plan, worked, change, select }: PanelProps) {
  const { say } = useSaying();
  const { cut } = plan;
  if (!cut || !worked.cut) return null;
  const set = (part: Partial<Schemas["Cut"]>, path: string) =>
    change({ ...plan, cut: { ...cut, ...part } }, path);
  return (
    <>
      <Choice
        label="Shape"
        value={cut.shape}
        options={[
          { value: "triangle", label: "Triangles" },
          { value: "rectangle", label: "Rectangles" },
        ]}
        onChange={(shape) => set({ shape }, "cut.shape")}
      />
      <div className={classes.pair}>
        <MeasureInput
          label="Base"
          quantity="length"
          path="cut.base_mm"
          value={cut.base_mm}
          onChange={(v) => v !== null && set({ base_mm: v }, "cut.base_mm")}
        />
        <MeasureInput
          label="Height"
          quantity="length"
          path="cut.height_mm"
          value={cut.height_mm}
          onChange={(v) => v !== null && set({ height_mm: v }, "cut.height_mm")}
        />
      </div>
      <MeasureInput
        label="The blade eats"
        quantity="length"
        path="cut.kerf_mm"
        value={cut.kerf_mm}
        onChange={(v) => v !== null && set({ kerf_mm: v }, "cut.kerf_mm")}
      />
      <dl className={classes.readouts}>
        <Readout worked={worked} of="cut.pieces" label="Pieces" value={String(worked.cut.pieces)} />
        <Readout
          worked={worked}
          of="cut.piece_g"
          label="Each"
          value={say("mass", worked.cut.piece_g)}
        />
        <Readout
          worked={worked}
          label="Trimmings"
          value={say("mass", Math.round(worked.cut.trimmings_g))}
        />
      </dl>
      <Button
        variant="default"
        onClick={() => {
          select("final");
          change({ ...plan, cut: null }, "cut");
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
    </>
  );
}
