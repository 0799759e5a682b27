/**
 * A moment, as the bakery says it: a day by its name and a clock of 24 hours, whatever the browser
 * believes of either. Right over a night and a clock change: what is given is the moment itself.
 */
import { Suspense } from "react";
import { lazily } from "@/wire/lazily";
import type { MomentFieldProps } from "./MomentField";

const MomentField = lazily(async () => (await import("./MomentField")).MomentField);

export function MomentInput(props: MomentFieldProps) {
  return (
    <Suspense fallback={<span className="quiet">{props.label}</span>}>
      <MomentField {...props} />
    </Suspense>
  );
}
