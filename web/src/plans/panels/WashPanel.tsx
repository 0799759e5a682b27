import { NativeSelect } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { Assumptions } from "../Assumptions";
import { OwnMinutes } from "./OwnMinutes";
import classes from "./panels.module.css";
import type { PanelProps } from "./props";

export const WASHES: { value: Schemas["Wash"]; label: string }[] = [
  { value: "egg", label: "Whole egg" },
  { value: "egg_salt", label: "Egg with a little salt" },
  { value: "egg_milk", label: "Egg with milk" },
  { value: "milk", label: "Milk" },
  { value: "cream", label: "Cream" },
  { value: "none", label: "No wash" },
];

/** What is brushed on, and how often. */
export function WashPanel({ plan, worked, change, select }: PanelProps) {
  const { finish } = plan;
  if (!finish || !worked.finish) return null;
  const set = (part: Partial<Schemas["Finish"]>, path: string) =>
    change({ ...plan, finish: { ...finish, ...part } }, path);
  return (
    <>
      <NativeSelect
        label="Wash"
        value={finish.wash}
        data={WASHES}
        onChange={(e) => {
          const wash = e.currentTarget.value as Schemas["Wash"];
          if (wash === "none") select("shape");
          set({ wash }, "finish.wash");
        }}
      />
      <Choice
        label="Coats"
        tight
        value={String(finish.coats)}
        options={["1", "2", "3"].map((value) => ({ value, label: value }))}
        onChange={(v) => set({ coats: Number(v) }, "finish.coats")}
      />
      <p className={classes.said}>{worked.finish.wash_says}</p>
      <Assumptions minutesKey="minutes.wash">
        <OwnMinutes
          path="finish.wash_min"
          value={finish.wash_min}
          onChange={(wash_min) => set({ wash_min }, "finish.wash_min")}
        />
      </Assumptions>
    </>
  );
}
