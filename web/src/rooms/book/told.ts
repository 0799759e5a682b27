/** A compared value as it is read, by its unit. */
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";

export function useTold(unit: string): (value: number) => string {
  const { words, say } = useSaying();
  return (value) => {
    if (unit === "min") return value < 0 ? `−${span(-value)}` : span(value);
    if (unit === "°C") return words(`{${value.toFixed(1)}|°C}`);
    if (unit === "g") return say("mass", Math.round(value * 10) / 10);
    return `${value.toFixed(1)}${unit && ` ${unit}`}`;
  };
}
