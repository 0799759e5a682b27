import { useLayoutEffect, useRef } from "react";

/**
 * What of a day wider than its screen is in sight: the hour it is, a third from the left; and what is
 * there stays there when the scale is another.
 *
 * @param scale pixels an hour takes; @param now minutes from the day's beginning, or null before and after it
 */
export function useSight(scale: number, now: number | null) {
  const box = useRef<HTMLDivElement>(null);
  const drawn = useRef<number | null>(null);
  useLayoutEffect(() => {
    const here = box.current;
    if (!here) return;
    const third = here.clientWidth / 3;
    if (drawn.current)
      here.scrollLeft = ((here.scrollLeft + third) * scale) / drawn.current - third;
    else if (now !== null) here.scrollLeft = (now / 60) * scale - third;
    drawn.current = scale;
  }, [scale, now]);
  return box;
}
