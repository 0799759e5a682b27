/** The butters of the house on their shelf: where each works, on one scale; your own are added there. */
import { Button, NativeSelect } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./ButterShelf.module.css";
import { type Props, useWritten } from "./Ingredients";

type Ingredient = Schemas["Ingredient"];

const SCALE = [4, 28] as const; // °C, from where to where
const TICKS = [5, 10, 15, 20, 25];
const [WIDE, HIGH] = [260, 20];

const at = (c: number) =>
  (WIDE * (Math.min(Math.max(c, SCALE[0]), SCALE[1]) - SCALE[0])) / (SCALE[1] - SCALE[0]);

/** What is written of own ingredients, and which of all can be locked in; and the one new plans begin with. */
export interface Butters extends Props {
  keys: readonly string[];
  usual: string;
}

export function ButterShelf({
  own,
  library,
  keep,
  keys,
  usual,
  readOnly,
}: Butters & { readOnly: boolean }) {
  const { form, from, change } = useWritten({ own, library, keep });
  const butters = library.filter((i) => keys.includes(i.key));
  if (form) return <div className={classes.written}>{form}</div>;
  return (
    <section className={classes.shelf} aria-label="The butters on the shelf">
      {own.map(
        (butter, i) =>
          keys.includes(butter.key) && (
            <button
              type="button"
              key={butter.key}
              className={classes.butter}
              disabled={readOnly}
              onClick={() => change(i)}
            >
              <b>{butter.name}</b> <small className="quiet">your own</small>
              <Works butter={butter} />
            </button>
          ),
      )}
      {butters.map((butter) => (
        <div key={butter.key} className={classes.butter}>
          {butter.name}{" "}
          {butter.key === usual && <small className="quiet">new plans lock it in</small>}
          <Works butter={butter} />
        </div>
      ))}
      <svg className={classes.scale} viewBox={`0 0 ${WIDE} 16`} aria-hidden="true">
        {TICKS.map((c) => (
          <text key={c} x={at(c)} y={12} textAnchor="middle">
            {c === TICKS.at(-1) ? `${c} °C` : c}
          </text>
        ))}
      </svg>
      {!readOnly && (
        <NativeSelect
          aria-label="Another butter, like"
          value=""
          data={[
            { value: "", label: "Another butter, like …" },
            ...butters.map(({ key, name }) => ({ value: key, label: name })),
          ]}
          onChange={(e) => from(e.currentTarget.value)}
        />
      )}
      <p>
        <Button component="a" href="#ingredients" variant="subtle" size="xs" color="dark">
          All ingredients of your own
        </Button>
      </p>
    </section>
  );
}

/** From where it breaks to where it oils, and between them where it works. */
function Works({ butter: { window } }: { butter: Ingredient }) {
  const { say } = useSaying();
  if (!window) return null;
  const said = (c: number) => say("temperature", c);
  const told = `Breaks below ${said(window.brittle_c)}, works from ${said(window.plastic_from_c)} to ${said(window.plastic_to_c)}, oils at ${said(window.oils_c)}.`;
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} role="img" aria-label={told}>
      <title>{told}</title>
      <path className={classes.ground} d={`M0,${HIGH / 2} H${WIDE}`} />
      <path
        className={classes.bears}
        d={`M${at(window.brittle_c)},${HIGH / 2} H${at(window.oils_c)}`}
      />
      <rect
        className={classes.works}
        x={at(window.plastic_from_c)}
        width={at(window.plastic_to_c) - at(window.plastic_from_c)}
        y={3}
        height={HIGH - 6}
        rx={2}
      />
    </svg>
  );
}
