/** Sound and picture when a rest may come out, is at its best, and must come out. */
import { useEffect, useRef, useState } from "react";
import { SoundSwitch } from "@/app/SoundSwitch";
import { ring, speak, useSound } from "@/app/sound";
import classes from "./Alarm.module.css";
import type { Call } from "./calls";

const TONES: Record<Call, number> = { leave: 0, may: 1, out: 2, last: 3 };

interface Props {
  call: Call;
  /** What is called out; null while there is nothing to say. */
  says: string | null;
  /** Which dough this is, and why the mark is where it is. */
  name: string;
  why: string;
}

export function Alarm({ call, says, name, why }: Props) {
  const [sound] = useSound();
  const [heard, setHeard] = useState<string | null>(null);
  const rung = useRef<string | null>(null);
  useEffect(() => {
    if (!says || says === rung.current) return;
    rung.current = says;
    if (sound === "off") return;
    ring(TONES[call]);
    if (sound === "spoken") speak(`${name}: ${says}`);
  }, [call, says, sound, name]);
  return (
    <div className={classes.alarm}>
      <SoundSwitch />
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
