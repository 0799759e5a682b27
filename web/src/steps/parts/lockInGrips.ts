/** What of a lock-in can be taken hold of. */
import { type Grip, linear } from "@/drawings/hands";
import { aboveAt } from "@/drawings/views";
import type { Given, PanelProps } from "./props";

/** The sides of the block as it lies on the dough, and the bare margin round it. */
export function lockInGrips(panel: PanelProps<"lock_in">, given: Given) {
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
