/** What a tablet sounds like: tones made here, and words spoken where it can. No file, no network. */
import { useLocalStorage } from "@mantine/hooks";

export type Sound = "on" | "spoken" | "off";

/** Whether this tablet rings, and whether it speaks as well. */
export const useSound = () =>
  useLocalStorage<Sound>({
    key: "eight-turn.sound",
    defaultValue: "on",
    // before the first alarm is rung, not after it
    getInitialValueInEffect: false,
    // tablets that knew only on and off kept true and false
    deserialize: (kept) =>
      kept === "false" || kept === '"off"' ? "off" : kept === '"spoken"' ? "spoken" : "on",
  });

/** Rising tones. */
export function ring(times: number) {
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

export const canSpeak = () => typeof window !== "undefined" && "speechSynthesis" in window;

/** Says something aloud; what was still being said is cut short. */
export function speak(says: string): void {
  if (!canSpeak()) return;
  window.speechSynthesis.cancel();
  const spoken = new SpeechSynthesisUtterance(says);
  spoken.lang = "en";
  window.speechSynthesis.speak(spoken);
}
