/** Rings for what needs hands, once for each, at a tablet where the one who does it is on. */
import { useLocalStorage } from "@mantine/hooks";
import { useEffect, useRef } from "react";
import type { Schemas } from "@/api/client";
import { ring, speak, useSound } from "@/app/sound";
import { calledOut, keyOf } from "./pressing";

export function useCalls(due: Schemas["Due"][]) {
  const [sound] = useSound();
  const [who, setWho] = useLocalStorage({ key: "eight-turn.today.who", defaultValue: "" });
  const heard = useRef<Set<string> | null>(null);
  useEffect(() => {
    // what was so when the page was opened is read, not rung
    const first = heard.current === null;
    heard.current ??= new Set();
    const calls = calledOut(due, heard.current, who);
    for (const one of due) heard.current.add(`${keyOf(one)} ${one.when}`);
    const [call] = calls;
    if (first || !call || sound === "off") return;
    ring(call.when === "late" ? 2 : 1);
    if (sound === "spoken") speak(`Dough ${call.doughs.join(", ")}: ${call.name}`);
  }, [due, who, sound]);
  return { who, setWho };
}
