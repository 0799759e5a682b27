import type { Schemas } from "@/api/client";

/** What the panel of every stop is given. */
export interface PanelProps {
  stop: Schemas["Stop"];
  plan: Schemas["Plan"];
  worked: Schemas["WorkedPlan"];
  readOnly: boolean;
  change: (plan: Schemas["Plan"], path: string) => void;
  select: (key: string) => void;
}
