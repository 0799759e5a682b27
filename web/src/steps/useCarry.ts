/** A step carried along the strip: by mouse as soon as it moves, by a finger that first lies still. */
import { type RefObject, useEffect, useRef, useState } from "react";

/** How far a mouse moves before it carries, and how still a finger lies, in points; and how long. */
const MOVED = 6;
const STILL = 10;
const HELD_MS = 350;

export interface Carried {
  from: number;
  /** Where it would be put down. */
  to: number;
  /** How far it has been carried, in points. */
  by: number;
}

/**
 * `placeAt`: which place lies so many points from the strip's beginning. The strip's own scrolling by
 * finger stays as it is until a step is taken up.
 */
export function useCarry(
  strip: RefObject<HTMLElement | null>,
  placeAt: (x: number) => number,
  onMove?: (from: number, to: number) => void,
) {
  const [carried, setCarried] = useState<Carried | null>(null);
  const now = useRef<Carried | null>(null);
  const began = useRef<{ x: number; y: number; from: number } | null>(null);
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const ended = useRef(false);
  const set = (next: Carried | null) => {
    now.current = next;
    setCarried(next);
  };
  const letGo = () => {
    clearTimeout(soon.current);
    began.current = null;
    set(null);
  };
  const last = useRef(letGo);
  last.current = letGo;

  useEffect(() => {
    const here = strip.current;
    // a page that scrolls under a finger takes the finger away
    const hold = (event: TouchEvent) => {
      if (now.current) event.preventDefault();
    };
    const leave = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || !now.current) return;
      ended.current = true;
      last.current();
    };
    here?.addEventListener("touchmove", hold, { passive: false });
    window.addEventListener("keydown", leave);
    return () => {
      clearTimeout(soon.current);
      here?.removeEventListener("touchmove", hold);
      window.removeEventListener("keydown", leave);
    };
  }, [strip]);

  const take = (target: Element, pointer: number) => {
    if (!began.current) return;
    target.setPointerCapture(pointer);
    set({ from: began.current.from, to: began.current.from, by: 0 });
  };
  const down = (event: React.PointerEvent, from: number) => {
    ended.current = false;
    if (!onMove || event.button !== 0) return;
    began.current = { x: event.clientX, y: event.clientY, from };
    if (event.pointerType === "mouse") return;
    const { currentTarget, pointerId } = event;
    soon.current = setTimeout(() => take(currentTarget, pointerId), HELD_MS);
  };
  const move = (event: React.PointerEvent) => {
    const start = began.current;
    if (!start) return;
    // let go where nobody heard of it
    if (event.buttons === 0) return letGo();
    const by = event.clientX - start.x;
    if (!now.current) {
      const far = Math.hypot(by, event.clientY - start.y);
      if (event.pointerType !== "mouse") {
        if (far > STILL) letGo();
        return;
      }
      if (far < MOVED) return;
      take(event.currentTarget, event.pointerId);
    }
    const left = strip.current?.getBoundingClientRect().left ?? 0;
    set({ from: start.from, to: placeAt(event.clientX - left), by });
  };
  const up = () => {
    const done = now.current;
    if (done) ended.current = true;
    letGo();
    if (done && done.to !== done.from) onMove?.(done.from, done.to);
  };
  return {
    carried,
    /** For each step. */
    hold: (from: number) => ({
      onPointerDown: (event: React.PointerEvent) => down(event, from),
      onPointerMove: move,
      onPointerUp: up,
      onPointerCancel: letGo,
      // a finger that lies still asks for the browser's own menu
      onContextMenu: (event: React.MouseEvent) => began.current && event.preventDefault(),
    }),
    /** For the strip: what was carried was not pressed. */
    onClickCapture: (event: React.MouseEvent) => {
      if (!ended.current) return;
      ended.current = false;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}
