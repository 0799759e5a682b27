import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./panels.module.css";

/** How one roll is done: the dial for each pass, or by hand the sizes on the way. */
export function HowToRoll({ how }: { how: Schemas["Rolling"] }) {
  const { figure, say } = useSaying();
  const gap = (mm: number) => figure("length", mm);
  if (how.gaps_mm.length) {
    return (
      <p className={classes.dial}>
        <span>On the dial</span>
        <b>{how.gaps_mm.map(gap).join(" · ")}</b>
        <small>
          {how.flatten_to_mm &&
            `Flatten to ${say("length", how.flatten_to_mm)} with the pin first. `}
          The last gap leaves {say("length", how.gives_mm)}.
        </small>
      </p>
    );
  }
  return (
    <p className={classes.dial}>
      <span>On the way</span>
      <b>
        {how.by_hand
          .map((s) => `${gap(Math.round(s.length_mm))} × ${gap(Math.round(s.width_mm))}`)
          .join(", ")}
      </b>
    </p>
  );
}
