import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import type { Do, MadeOf, Plan, StepOf, Stop, Worked } from "@/api/steps";
import type { useTrade } from "@/api/trade";
import type { Grip } from "@/drawings/hands";
import type { DrawnAbove } from "@/drawings/views";
import type { useSaying } from "@/measures/likes";

/** A change that the core works out, and the field its complaints belong to. */
export type Amend = (
  amendment: Schemas["Amendment"],
  path: string,
  then?: (made: Plan) => void,
) => void;

/** What the panel of every stop is given. */
export interface PanelProps<D extends Do = Do> {
  stop: Stop;
  plan: Plan;
  worked: Worked;
  warmth?: Schemas["WorkedWarmth"];
  readOnly: boolean;
  change: (plan: Plan, path: string) => void;
  amend: Amend;
  select: (key: string) => void;
  searchFolds: () => void;
  step: StepOf<D>;
  made: MadeOf<D> | undefined;
  /** Where the step lies in the plan: `steps[3]`. */
  at: string;
  /** Change the step; `name` says which of its fields was edited, for undo and for complaints. */
  set: (part: Partial<StepOf<D>>, name: string) => void;
}

/** What a grip must know beside its step. */
export interface Given {
  trade: ReturnType<typeof useTrade>;
  /** Whether a sheet keeps its thickness while an edge of it is moved. */
  keepThickness: boolean;
  say: ReturnType<typeof useSaying>["say"];
}

/** What the strip draws of a stop. */
export interface Drawn<D extends Do = Do> {
  stop: Stop;
  plan: Plan;
  worked: Worked;
  step: StepOf<D>;
  made: MadeOf<D> | undefined;
}

/** The ways to look at a sheet. */
export type View = "sheet" | "leaves" | "folding" | "cut" | "warmth" | "marks";

/** Everything the screens know of a kind of step; each lies in a file named by what it does. */
export interface KindView<D extends Do = Do> {
  /** Drawn on the strip, in a box of 72 × 44. */
  Glyph: (drawn: Drawn<D>) => ReactNode;
  /** What stands under the glyph; absent: the size it lies at and its count. */
  facts?: (drawn: Drawn<D>, saying: ReturnType<typeof useSaying>) => ReactNode;
  /** Words of the trade that belong to it, beside its own name: keys of the glossary. */
  terms?: (step: StepOf<D>) => string[];
  /** Its few inputs. */
  Panel: (props: PanelProps<D>) => ReactNode;
  /** How it is drawn from above, where that is not as any sheet is; null: as any. */
  above?: (drawn: Drawn<D>) => DrawnAbove | null;
  /** What of it can be taken hold of: on the sheet from above, and in its stack from the side. */
  grips?: (panel: PanelProps<D>, given: Given) => { above?: Grip[]; side?: Grip[] };
  /** What is drawn in place of a sheet from above. */
  Sheet?: (drawn: Drawn<D>) => ReactNode;
  /** The ways to look at what lies there; absent: nothing lies there. */
  views?: View[];
  /** It is done with pieces: what is drawn are trays, the card, the oven or the fat, the labels. */
  finished?: true;
}

/** So that a kind's file is checked against its own step. */
export const kind = <D extends Do>(_: D, view: KindView<D>): KindView =>
  view as unknown as KindView;
