/** Today's room and fridge: two sliders that move the whole plan, and what to do differently. */
import { Button, Slider } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { clock } from "@/app/time";
import { useSaying } from "@/measures/likes";
import classes from "./TodayBar.module.css";
import type { Today } from "./useWarmth";

interface Props {
  warmth?: Schemas["WorkedWarmth"];
  today: Today;
  /** What somebody of the house said of today, for every screen. */
  said?: Schemas["Climate"];
  /** Whether something else is tried here. */
  trying: boolean;
  change: (today: Today) => void;
  /** Say it of today, for all. */
  say: (today: Today) => void;
  /** Ask what two degrees more would change. */
  askWarmer: () => void;
}

export function TodayBar({ warmth, today, said, trying, change, say: tell, askWarmer }: Props) {
  const { say, words } = useSaying();
  const room = today.room_c ?? warmth?.room_c ?? 21;
  const fridge = today.fridge_c ?? warmth?.fridge_c ?? 4;
  const saidSo = said?.room_c != null || said?.fridge_c != null;
  return (
    <section className={classes.bar} aria-label="Today">
      <div className={classes.sliders}>
        <span id="todayRoom">
          Room <b>{say("temperature", room)}</b>
        </span>
        <Slider
          min={8}
          max={38}
          step={0.5}
          value={room}
          label={null}
          color="var(--crust)"
          thumbProps={{ "aria-labelledby": "todayRoom" }}
          onChange={(room_c) => change({ ...today, room_c })}
        />
        <span id="todayFridge">
          Fridge <b>{say("temperature", fridge)}</b>
        </span>
        <Slider
          min={0}
          max={14}
          step={0.5}
          value={fridge}
          label={null}
          color="var(--cold)"
          thumbProps={{ "aria-labelledby": "todayFridge" }}
          onChange={(fridge_c) => change({ ...today, fridge_c })}
        />
      </div>
      <p role="status" data-works={warmth?.works}>
        {words(warmth?.summary ?? "")}
        {warmth?.warmer && <span className="quiet"> {words(warmth.warmer)}</span>}
        {warmth && !warmth.warmer && (
          <button type="button" className={classes.ask} onClick={askWarmer}>
            Two degrees warmer?
          </button>
        )}
      </p>
      {trying ? (
        <div className={classes.say}>
          <span>Tried on this screen only.</span>
          <Button size="xs" onClick={() => tell(today)}>
            It is so today, for all
          </Button>
          <Button variant="default" size="xs" onClick={() => change({})}>
            Back to {saidSo ? "what was said" : "the usual"}
          </Button>
        </div>
      ) : (
        saidSo && (
          <div className={classes.say}>
            <span>
              Said of today{said?.by && ` by ${said.by}`}
              {said?.at && `, ${clock(said.at)}`}
            </span>
            <Button variant="default" size="xs" onClick={() => tell({})}>
              As usual
            </Button>
          </div>
        )
      )}
    </section>
  );
}
