import { Modal } from "@mantine/core";
import { IconCheck, IconScale } from "@tabler/icons-react";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { Pad } from "@/measures/Pad";
import keypad from "./Keypad.module.css";
import classes from "./Scales.module.css";
import type { Saying } from "./useRun";

interface Props {
  sheet: Schemas["WeighSheet"];
  weighed: Map<string, number>;
  say: (saying: Saying) => void;
}

/** A weigh-out sheet at the bench: a press ticks a line off; what was really used can differ. */
export function Scales({ sheet, weighed, say }: Props) {
  const saying = useSaying();
  const [asking, setAsking] = useState<Schemas["WeighLine"] | null>(null);
  const keep = (line: Schemas["WeighLine"], grams: number) =>
    say({ kind: "weighed", line: line.key, grams });
  return (
    <>
      <ul className={classes.lines} aria-label={`${sheet.name}: to weigh`}>
        {sheet.lines.map((line) => {
          const used = weighed.get(line.key);
          const off = used !== undefined && Math.abs(used - line.grams) > 0.05;
          return (
            <li key={line.key} data-done={used !== undefined || undefined}>
              <button
                type="button"
                className={classes.line}
                aria-pressed={used !== undefined}
                onClick={() => used === undefined && keep(line, line.grams)}
              >
                <i>{used !== undefined && <IconCheck size={24} />}</i>
                <span>{line.name}</span>
                <b>{saying.say("mass", used ?? line.grams)}</b>
                {off && <small>of {saying.say("mass", line.grams)}</small>}
              </button>
              <button
                type="button"
                className={classes.other}
                aria-label={`${line.name}: another weight`}
                onClick={() => setAsking(line)}
              >
                <IconScale size={24} />
              </button>
            </li>
          );
        })}
      </ul>
      <Modal
        opened={asking !== null}
        onClose={() => setAsking(null)}
        title={asking ? `${asking.name}: weight used` : ""}
        size={420}
      >
        {asking && (
          <div className={keypad.pad}>
            <Pad
              quantity="mass"
              label="Weight entered"
              example={saying.figure("mass", asking.grams)}
              refuse={(value, shown) =>
                value < 0 || value > 500_000 ? `${shown} is more than any scale here shows.` : null
              }
              onEnter={(grams) => {
                keep(asking, grams);
                setAsking(null);
              }}
            />
          </div>
        )}
      </Modal>
    </>
  );
}
