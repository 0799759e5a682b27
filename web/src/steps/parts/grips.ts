/** What several kinds of step let one take hold of. */
import { type Grip, linear } from "@/drawings/hands";
import type { Given, PanelProps } from "./props";
import { chosen } from "./RollTo";

type Rolled = PanelProps<"turn"> | PanelProps<"last_sheet"> | PanelProps<"plain_turn">;
interface Size {
  length_mm: number;
  width_mm: number;
  thickness_mm: number;
}

/**
 * The edges of a rolled sheet, and the top of its stack: `layers` of it lie on each other there. While
 * an edge is moved the thickness follows; where it is kept, the other side does.
 */
export function rolledGrips(panel: Rolled, made: Size, layers: number, given: Given) {
  const { step, at } = panel;
  const limits = given.trade.limits[step.do] ?? {};
  const set = panel.set as (part: object, name: string) => void;
  const { length_mm, width_mm, thickness_mm } = made;
  const kept = { roll_to_mm: Math.round(10 * thickness_mm) / 10 };
  const thick = given.say("length", Math.round(10 * thickness_mm) / 10);
  const long = given.say("length", Math.round(length_mm));
  const wide = given.say("length", Math.round(width_mm));
  const edge = (name: "length_mm" | "width_mm", label: string, also: string) => ({
    path: `${at}.${name}`,
    label,
    quantity: "length" as const,
    limits: limits[name],
    also,
    ...linear(0, 1),
  });
  const above: Grip[] = [
    {
      ...edge(
        "length_mm",
        "Length of the sheet",
        given.keepThickness ? `× ${wide}` : `${thick} thick`,
      ),
      value: Math.round(length_mm),
      dir: "x",
      from: 0,
      to: width_mm,
      put: (v) =>
        set(
          given.keepThickness
            ? { ...kept, length_mm: v, width_mm: null }
            : { roll_to_mm: null, length_mm: v, width_mm: step.width_mm },
          "length_mm",
        ),
    },
    {
      ...edge(
        "width_mm",
        "Width of the sheet",
        given.keepThickness ? `× ${long}` : `${thick} thick`,
      ),
      value: Math.round(width_mm),
      dir: "y",
      from: 0,
      to: length_mm,
      put: (v) =>
        set(
          given.keepThickness
            ? { ...kept, width_mm: v, length_mm: null }
            : { roll_to_mm: null, width_mm: v, length_mm: step.length_mm ?? Math.round(length_mm) },
          "width_mm",
        ),
    },
  ];
  const side: Grip[] = [
    {
      path: `${at}.roll_to_mm`,
      label: "Thickness it is rolled to",
      quantity: "length",
      value: thickness_mm,
      limits: limits.roll_to_mm,
      also: `${long} × ${wide}`,
      dir: "y",
      ...linear(0, layers),
      from: 0,
      to: 1,
      put: (v) => set(chosen(step, "roll_to_mm", v, made), "roll_to_mm"),
    },
  ];
  return { above, side };
}
