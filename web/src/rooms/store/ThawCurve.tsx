/** How warm a block's middle is on its way from the freezer, with when it is ready. */
import type { Schemas } from "@/api/client";
import { clock, day } from "@/app/time";
import { useSaying } from "@/measures/likes";
import classes from "./Store.module.css";

const WIDE = 300;
const HIGH = 92;

export function ThawCurve({
  thawing,
  wantedAt,
}: {
  thawing: Pick<Schemas["Thawing"], "course"> & { ready: (string | null)[] };
  wantedAt: string;
}) {
  const { say } = useSaying();
  const { course, ready } = thawing;
  const first = course[0];
  const last = course[course.length - 1];
  if (!first || !last) return null;
  const from = Date.parse(first.at);
  const until = Math.max(Date.parse(last.at), Date.parse(wantedAt));
  const [coldest, warmest] = [Math.min(first.middle_c, -2), Math.max(last.middle_c, 4)];
  const x = (at: number) => 4 + ((at - from) / (until - from)) * (WIDE - 8);
  const y = (c: number) => 8 + ((warmest - c) / (warmest - coldest)) * (HIGH - 26);
  const path = `M${course.map((w) => `${x(Date.parse(w.at)).toFixed(1)} ${y(w.middle_c).toFixed(1)}`).join("L")}`;
  const [starts = last.at, ends] = ready;
  const readyUntil = ends ? Date.parse(ends) : until;
  const readyFrom = x(Date.parse(starts ?? last.at));
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      className={classes.curve}
      role="img"
      aria-label={`Its middle from ${say("temperature", first.middle_c)} at ${day(first.at)}; ready from ${day(starts ?? last.at)}`}
    >
      <rect
        className={classes.ready}
        x={readyFrom}
        y="4"
        width={Math.max(x(readyUntil) - readyFrom, 2)}
        height={HIGH - 20}
      />
      <path className={classes.axis} d={`M4 ${y(0)}H${WIDE - 4}`} />
      <path className={classes.course} d={path} />
      <path className={classes.wanted} d={`M${x(Date.parse(wantedAt))} 2V${HIGH - 14}`} />
      <text x="4" y={HIGH - 2}>
        {clock(first.at)}
      </text>
      <text x={x(Date.parse(wantedAt))} y={HIGH - 2} textAnchor="end">
        {clock(wantedAt)}
      </text>
      <text x="4" y={y(0) - 3}>
        {say("temperature", 0)}
      </text>
    </svg>
  );
}
