/** Sound and picture when a rest may come out, is at its best, and must come out. */
import { useEffect, useRef, useState } from "react";
import { SoundSwitch } from "@/app/SoundSwitch";
import { ring, speak, useSound } from "@/app/sound";
import { useSaying } from "@/measures/likes";
import classes from "./Alarm.module.css";
import { calledOf, dueNow } from "./called";
import type { Call } from "./calls";
import type { Now, RunView } from "./now";
import { useClock } from "./useClock";

const TONES: Record<Call, number> = { leave: 0, may: 1, out: 2, last: 3 };

interface Props {
  call: Call;
  /** What is called out; null while there is nothing to say. */
  says: string | null;
  /** Which dough this is, and why the mark is where it is. */
  name: string;
  why: string;
}

/** `moved`: where it is to lie now, when that has changed. */
export function Alarm({ moved, ...props }: Props & { moved?: string }) {
  return (
    <div className={classes.alarm}>
      <SoundSwitch />
      {/* Always there, so that what comes into it is read out. */}
      <div aria-live="assertive" className={classes.calls}>
        {moved && <CalledOut call="may" says={moved} name={props.name} why="" />}
        <CalledOut {...props} />
      </div>
    </div>
  );
}

/** What is due with trays in proof and oven, each said once for all whose it is. */
export function TrayAlarms({ run, now, name }: { run: RunView; now: Now; name: string }) {
  const clock = useClock();
  const { words } = useSaying();
  const due = dueNow(calledOf(run, now), clock);
  return (
    <div className={classes.alarm}>
      <SoundSwitch />
      <div aria-live="assertive" className={classes.calls}>
        {[...due].map(([key, { trays, says, ends }]) => (
          <CalledOut
            key={key}
            call={ends ? "out" : "may"}
            says={`${trays.length > 1 ? "trays" : "tray"} ${trays.join(", ")}: ${words(says)}`}
            name={name}
            why=""
          />
        ))}
      </div>
    </div>
  );
}

function CalledOut({ call, says, name, why }: Props) {
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
  if (!says || says === heard) return null;
  return (
    <button type="button" className={classes.call} data-call={call} onClick={() => setHeard(says)}>
      <b>
        {name}: {says}
      </b>
      <small>{why} Press when heard.</small>
    </button>
  );
}
