/** Sound and picture when a rest may come out, is at its best, and must come out. */
import { useLocalStorage } from "@mantine/hooks";
import { IconVolume, IconVolumeOff } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import classes from "./Alarm.module.css";

export interface Marks {
  ready: Date | null;
  best: Date | null;
  last: Date | null;
}

const SAYS = {
  ready: "it may come out now",
  best: "best now",
  last: "last call, take it out",
} as const;
type Mark = keyof typeof SAYS;
const ORDER: Mark[] = ["ready", "best", "last"];

/** The last mark that is past, if any. */
export function passed(marks: Marks, now: Date): Mark | null {
  return ORDER.filter((m) => marks[m] && (marks[m] as Date) <= now).at(-1) ?? null;
}

/** Three rising tones, made here: no file, no network. */
function ring(times: number) {
  const audio = new AudioContext();
  for (let i = 0; i < times; i++) {
    const tone = audio.createOscillator();
    const loud = audio.createGain();
    const at = audio.currentTime + i * 0.42;
    tone.frequency.value = 560 + 190 * i;
    loud.gain.setValueAtTime(0.0001, at);
    loud.gain.exponentialRampToValueAtTime(0.5, at + 0.03);
    loud.gain.exponentialRampToValueAtTime(0.0001, at + 0.36);
    tone.connect(loud).connect(audio.destination);
    tone.start(at);
    tone.stop(at + 0.4);
  }
  setTimeout(() => audio.close(), 3000);
}

interface Props {
  marks: Marks;
  now: Date;
  /** Which dough this is, and why the mark is where it is. */
  name: string;
  why: string;
}

export function Alarm({ marks, now, name, why }: Props) {
  const [sound, setSound] = useLocalStorage({ key: "eight-turn.sound", defaultValue: true });
  const mark = passed(marks, now);
  const [heard, setHeard] = useState<Mark | null>(null);
  const rung = useRef<Mark | null>(null);
  useEffect(() => {
    if (!mark || mark === rung.current) return;
    rung.current = mark;
    if (sound) ring(ORDER.indexOf(mark) + 1);
  }, [mark, sound]);
  return (
    <div className={classes.alarm}>
      <button
        type="button"
        className={classes.sound}
        aria-pressed={sound}
        onClick={() => {
          setSound(!sound);
          if (!sound) ring(1);
        }}
      >
        {sound ? <IconVolume /> : <IconVolumeOff />}
        {sound ? "Sound on" : "Sound off"}
      </button>
      {/* Always there, so that what comes into it is read out. */}
      <div aria-live="assertive" className={classes.calls}>
        {mark && mark !== heard && (
          <button
            type="button"
            className={classes.call}
            data-mark={mark}
            onClick={() => setHeard(mark)}
          >
            <b>
              {name}: {SAYS[mark]}
            </b>
            <small>{why} Press when heard.</small>
          </button>
        )}
      </div>
    </div>
  );
}
