import type { Schemas } from "@/api/client";

/** A change that the core works out, and the field its complaints belong to. */
export type Amend = (amendment: Schemas["Amendment"], path: string) => void;

/** What the panel of every stop is given. */
export interface PanelProps {
  stop: Schemas["Stop"];
  plan: Schemas["Plan"];
  worked: Schemas["WorkedPlan"];
  warmth?: Schemas["WorkedWarmth"];
  readOnly: boolean;
  change: (plan: Schemas["Plan"], path: string) => void;
  amend: Amend;
  select: (key: string) => void;
  searchFolds: () => void;
}
