import { useInterval } from "@mantine/hooks";
import { useEffect, useState } from "react";
import { houseTime, onClock } from "@/wire/clock";

/** The bakehouse's time, ticking here each second: this tablet's own clock may be wrong. */
export function useClock(): Date {
  const [clock, setClock] = useState(() => new Date(houseTime()));
  const ticking = useInterval(() => setClock(new Date(houseTime())), 1000);
  // biome-ignore lint/correctness/useExhaustiveDependencies: start once
  useEffect(() => {
    ticking.start();
    return ticking.stop;
  }, []);
  useEffect(() => onClock(() => setClock(new Date(houseTime()))), []);
  return clock;
}
