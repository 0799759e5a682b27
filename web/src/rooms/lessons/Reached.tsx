/** Lines of what is to be reached, each with its sign: reached, not reached, or still open. */
import type { ReactNode } from "react";
import classes from "./Reached.module.css";

interface Line {
  of: string;
  /** Not known before it is over. */
  reached?: boolean;
  says: ReactNode;
}

export function Reached({ lines }: { lines: Line[] }) {
  return (
    <ul className={classes.goal}>
      {lines.map(({ of, reached, says }) => (
        <li key={of} data-reached={reached}>
          <span className={classes.tick} aria-hidden="true">
            {reached === undefined ? "·" : reached ? "✓" : "✕"}
          </span>
          <span>{says}</span>
        </li>
      ))}
    </ul>
  );
}
