/** What a hand and a probe say: the middle, the face, the butter and what its corner does. */
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./Felt.module.css";
import { type Bench, type Course, readAt } from "./play";

const BENDS: Record<Schemas["Bend"], string> = {
  cracks: "a corner cracks",
  bends: "a corner bends",
  smears: "a corner smears",
};

export function FeltNow({ felt, bench }: { felt: Schemas["Felt"]; bench: Bench }) {
  const { words } = useSaying();
  return (
    <section aria-label="What you feel" className={classes.felt}>
      <h2>What you feel</h2>
      <p className={classes.touch}>{words(felt.says)}</p>
      <Probes
        middle={felt.middle_c}
        face={felt.face_c}
        butter={bench.butterless ? null : felt.butter_c}
      />
      {felt.butter_c !== null && felt.bend && (
        <ButterScale bench={bench} at={felt.butter_c} word={BENDS[felt.bend]} />
      )}
    </section>
  );
}

export function FeltResting({
  course,
  minute,
  bench,
}: {
  course: Course;
  minute: number;
  bench: Bench;
}) {
  const { words } = useSaying();
  const at = (values: readonly number[]) => readAt(course, values, minute);
  const butter = at(course.butter_c);
  return (
    <section aria-label="What you feel" className={classes.felt}>
      <h2>What you feel</h2>
      <p className={classes.touch}>
        {words(course.signs.findLast((sign) => sign.from_min <= minute)?.says ?? "")}
      </p>
      <Probes middle={at(course.middle_c)} face={at(course.face_c)} butter={butter} />
      {butter !== null && <ButterScale bench={bench} at={butter} />}
    </section>
  );
}

function Probes({
  middle,
  face,
  butter,
}: {
  middle: number | null;
  face: number | null;
  butter: number | null;
}) {
  const { say } = useSaying();
  const lines: [string, number | null][] = [
    ["middle", middle],
    ["face", face],
    ["butter", butter],
  ];
  return (
    <dl className={classes.probes}>
      {lines.map(([name, value]) =>
        value === null ? null : (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{say("temperature", Math.round(value * 10) / 10)}</dd>
          </div>
        ),
      )}
    </dl>
  );
}

const AROUND_K = 4;

/** Where the butter is between brittle and oily, by its maker's marks. */
function ButterScale({ bench, at, word }: { bench: Bench; at: number; word?: string }) {
  const { say } = useSaying();
  const low = Math.min(bench.brittle_c, at) - AROUND_K;
  const high = Math.max(bench.oils_c, at) + AROUND_K;
  const x = (t: number) => `${((100 * (t - low)) / (high - low)).toFixed(1)}%`;
  const works = {
    left: x(bench.plastic_from_c),
    width: `calc(${x(bench.plastic_to_c)} - ${x(bench.plastic_from_c)})`,
  };
  return (
    <figure
      className={classes.scale}
      aria-label={`Butter at ${say("temperature", at)}; it works from ${say("temperature", bench.plastic_from_c)} to ${say("temperature", bench.plastic_to_c)}.`}
    >
      <div className={classes.track} aria-hidden="true">
        <i style={works} />
        <b style={{ left: x(at) }} />
      </div>
      <figcaption>
        <span>brittle</span>
        <span>{word ?? "works"}</span>
        <span>oily</span>
      </figcaption>
    </figure>
  );
}
