import type { Schemas } from "@/api/client";
import { HowGot } from "@/cold/HowGot";
import { span } from "@/measures/quantity";
import { Readout } from "./Readout";

interface Props {
  worked: Schemas["WorkedPlan"];
  clock?: Schemas["WorkClock"];
}

/** How long the butter stays workable on the bench today, against how long the work takes. */
export function ClockReadout({ worked, clock }: Props) {
  if (!clock) return null;
  const lasts =
    typeof clock.lasts_min === "number" ? span(Math.round(clock.lasts_min)) : "over 1 h";
  return (
    <Readout
      worked={worked}
      label={`Butter works for (${span(clock.takes_min)} wanted)`}
      value={lasts}
    >
      {" "}
      <HowGot of={["clock"]} />
    </Readout>
  );
}
