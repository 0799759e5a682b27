/** Sound and picture when a rest may come out, is at its best, and must come out. */
import { useLocalStorage } from "@mantine/hooks";
import { IconVolume, IconVolumeOff } from "@tabler/icons-react";
import { useEffect, useRef, useState } from "react";
import classes from "./Alarm.module.css";
import type { Call } from "./calls";

const TONES: Record<Call, number> = { leave: 0, may: 1, out: 2, last: 3 };

/** Rising tones, made here: no file, no network. */
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
  call: Call;
  /** What is called out; null while there is nothing to say. */
  says: string | null;
  /** Which dough this is, and why the mark is where it is. */
  name: string;
  why: string;
}

export function Alarm({ call, says, name, why }: Props) {
  const [sound, setSound] = useLocalStorage({ key: "eight-turn.sound", defaultValue: true });
  const [heard, setHeard] = useState<string | null>(null);
  const rung = useRef<string | null>(null);
  useEffect(() => {
    if (!says || says === rung.current) return;
    rung.current = says;
    if (sound) ring(TONES[call]);
  }, [call, says, sound]);
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
        {says && says !== heard && (
          <button
            type="button"
            className={classes.call}
            data-call={call}
            onClick={() => setHeard(says)}
          >
            <b>
              {name}: {says}
            </b>
            <small>{why} Press when heard.</small>
          </button>
        )}
      </div>
    </div>
  );
}
