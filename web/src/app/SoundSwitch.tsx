/** Sound on, spoken or off, for this tablet; one press to the next. */
import { IconSpeakerphone, IconVolume, IconVolumeOff } from "@tabler/icons-react";
import classes from "./SoundSwitch.module.css";
import { canSpeak, ring, type Sound, speak, useSound } from "./sound";

const NEXT: Record<Sound, Sound> = { on: "spoken", spoken: "off", off: "on" };
const SAID: Record<Sound, string> = { on: "Sound on", spoken: "Spoken", off: "Sound off" };
const ICON = { on: IconVolume, spoken: IconSpeakerphone, off: IconVolumeOff };

export function SoundSwitch({ small }: { small?: boolean }) {
  const [sound, setSound] = useSound();
  const Icon = ICON[sound];
  return (
    <button
      type="button"
      className={classes.sound}
      data-small={small || undefined}
      aria-pressed={sound !== "off"}
      onClick={() => {
        const next = sound === "on" && !canSpeak() ? "off" : NEXT[sound];
        setSound(next);
        if (next === "on") ring(1);
        if (next === "spoken") speak("Spoken.");
      }}
    >
      <Icon />
      {SAID[sound]}
    </button>
  );
}
