import { useInterval } from "@mantine/hooks";
import { useEffect, useRef, useState } from "react";

/** The bakehouse's time, ticking here each second: this tablet's own clock may be wrong. */
export function useClock(serverNow: string): Date {
  const offset = useRef(0);
  const [clock, setClock] = useState(() => new Date());
  useEffect(() => {
    offset.current = new Date(serverNow).getTime() - Date.now();
    setClock(new Date(Date.now() + offset.current));
  }, [serverNow]);
  const ticking = useInterval(() => setClock(new Date(Date.now() + offset.current)), 1000);
  // biome-ignore lint/correctness/useExhaustiveDependencies: start once
  useEffect(() => {
    ticking.start();
    return ticking.stop;
  }, []);
  return clock;
}
