import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { How } from "./How";
import classes from "./Readout.module.css";

interface Props {
  label: string;
  value: string;
  worked: Schemas["WorkedPlan"];
  /** Path of the number in the worked plan; if its working is known, it is shown on a press. */
  of?: string;
  /** Shown as length × width instead of `value`. */
  size?: Schemas["Size"];
  /** Under the value, such as how this was worked out where that is no single number's working. */
  children?: ReactNode;
}

/** A worked number that can say how this was worked out. */
export function Readout({ label, value, worked, of, size, children }: Props) {
  const { figure, say } = useSaying();
  const shown = size
    ? `${figure("length", Math.round(size.length_mm))} × ${say("length", Math.round(size.width_mm))}`
    : value;
  return (
    <div className={classes.row}>
      <dt>{label}</dt>
      <dd>
        <How worked={worked} of={of} shown={shown} label={`${label}, ${shown}`} />
        {children}
      </dd>
    </div>
  );
}
