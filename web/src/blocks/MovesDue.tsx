/** Blocks that are to be taken out of the freezer: when, and for when. */
import { Button } from "@mantine/core";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { clock, day } from "@/app/time";
import { sayOf } from "./blocks";
import classes from "./MovesDue.module.css";

type Move = Schemas["ThawMove"];

const today = (at: string, other: string) => day(at).slice(0, 6) === day(other).slice(0, 6);

/** When a block is ready, in words. */
export const readiness = (m: Pick<Move, "ready_from" | "ready_until">): string =>
  m.ready_until
    ? `ready from ${day(m.ready_from)} to ${today(m.ready_from, m.ready_until) ? clock(m.ready_until) : day(m.ready_until)}`
    : `ready from ${day(m.ready_from)}`;

export function MovesDue({ moves, large }: { moves: Move[]; large?: boolean }) {
  if (moves.length === 0) return null;
  return (
    <ul className={classes.moves}>
      {moves.map((m) => (
        <li key={m.block} data-late={m.late || undefined}>
          <time dateTime={m.at}>{day(m.at)}</time>
          <span className={classes.what}>
            <b>
              <Link to={`/store/${m.block}`}>{m.mark}</Link> {m.name}
            </b>
            <span className="quiet">
              {m.late && <b className={classes.late}>late · </b>}
              {m.by === "bench" ? "onto the bench" : "into the fridge"}, {readiness(m)}
              {m.why && ` · ${m.why}`}
            </span>
          </span>
          <Button
            size={large ? "md" : "sm"}
            variant="default"
            onClick={() => sayOf(m.block, { kind: "moved", place: "fridge", shelf: 1 })}
            hidden={m.by === "bench"}
          >
            It is moved
          </Button>
        </li>
      ))}
    </ul>
  );
}
