/** Whatever is taken hold of and moved, by mouse or by finger: one way for all that is dragged. */
import { type RefObject, useEffect, useRef, useState } from "react";

/** How still a finger lies before it takes hold of what can also be scrolled, in points; and how long. */
const STILL = 10;
const HELD_MS = 350;

export interface By {
  x: number;
  y: number;
}

export interface Dragged<T> {
  what: T;
  /** How far it has been moved, in points. */
  by: By;
}

interface Dragging<T> {
  /** How far a pointer moves before it drags, in points; none: it holds as soon as it is down. */
  slack?: number;
  /** The surface a finger scrolls: there it takes hold only when it has lain still. */
  scrolls?: RefObject<Element | null>;
  take?: (what: T) => void;
  move?: (what: T, by: By) => void;
  drop: (what: T, by: By) => void;
  /** Taken from the hand, or given up: all is as it was. */
  cancel?: (what: T) => void;
}

interface Began<T> extends Dragged<T> {
  at: By;
  pointer: number;
  target: Element;
  mouse: boolean;
}

/**
 * What is dragged now, and for each thing that can be dragged what it listens to. Moves and the letting
 * go are heard wherever the pointer is; Escape and a pointer taken away cancel.
 */
export function useDrag<T>(options: Dragging<T>) {
  const { slack = 0, scrolls } = options;
  const [dragged, setDragged] = useState<Dragged<T> | null>(null);
  const told = useRef(options);
  told.current = options;
  const began = useRef<Began<T> | null>(null);
  const held = useRef(false);
  const ended = useRef(false);
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const unhear = useRef(() => {});

  const end = () => {
    clearTimeout(soon.current);
    unhear.current();
    began.current = null;
    held.current = false;
    setDragged(null);
  };
  const cancel = () => {
    const { current: was } = began;
    const { current: had } = held;
    end();
    if (was && had) told.current.cancel?.(was.what);
  };
  const take = () => {
    const { current: was } = began;
    if (!was) return;
    held.current = true;
    was.target.setPointerCapture(was.pointer);
    setDragged({ what: was.what, by: was.by });
    told.current.take?.(was.what);
  };
  const move = (event: PointerEvent) => {
    const { current: was } = began;
    if (!was) return;
    // let go where nobody heard of it
    if (was.mouse && event.buttons === 0) return cancel();
    was.by = { x: event.clientX - was.at.x, y: event.clientY - was.at.y };
    if (!held.current) {
      const far = Math.hypot(was.by.x, was.by.y);
      if (!was.mouse && scrolls) {
        if (far > STILL) end();
        return;
      }
      if (far < slack) return;
      take();
    }
    setDragged({ what: was.what, by: was.by });
    told.current.move?.(was.what, was.by);
  };
  const up = () => {
    const { current: was } = began;
    const { current: had } = held;
    end();
    if (!was || !had) return;
    ended.current = true;
    told.current.drop(was.what, was.by);
  };
  const giveUp = (event: KeyboardEvent) => {
    if (event.key !== "Escape" || !held.current) return;
    ended.current = true;
    cancel();
  };
  const hears = useRef({ move, up, cancel, giveUp });
  hears.current = { move, up, cancel, giveUp };

  const down = (event: React.PointerEvent, what: T) => {
    ended.current = false;
    if (event.button !== 0 || held.current) return;
    end();
    const mouse = event.pointerType === "mouse";
    began.current = {
      what,
      by: { x: 0, y: 0 },
      at: { x: event.clientX, y: event.clientY },
      pointer: event.pointerId,
      target: event.currentTarget,
      mouse,
    };
    const mine = (then: (event: PointerEvent) => void) => (event: PointerEvent) =>
      event.pointerId === began.current?.pointer && then(event);
    const onMove = mine((e) => hears.current.move(e));
    const onUp = mine(() => hears.current.up());
    const onCancel = mine(() => hears.current.cancel());
    const onKey = (e: KeyboardEvent) => hears.current.giveUp(e);
    window.addEventListener("pointermove", onMove);
    window.addEventListener("pointerup", onUp);
    window.addEventListener("pointercancel", onCancel);
    window.addEventListener("keydown", onKey);
    unhear.current = () => {
      window.removeEventListener("pointermove", onMove);
      window.removeEventListener("pointerup", onUp);
      window.removeEventListener("pointercancel", onCancel);
      window.removeEventListener("keydown", onKey);
    };
    if (!slack) take();
    else if (!mouse && scrolls) soon.current = setTimeout(take, HELD_MS);
  };

  useEffect(() => {
    // a page that scrolls under a finger takes the finger away
    const here = scrolls?.current;
    const hold = (event: Event) => held.current && event.preventDefault();
    here?.addEventListener("touchmove", hold, { passive: false });
    return () => here?.removeEventListener("touchmove", hold);
  }, [scrolls]);
  useEffect(
    () => () => {
      clearTimeout(soon.current);
      unhear.current();
    },
    [],
  );

  return {
    dragged,
    /** For each thing that can be taken hold of. */
    hold: (what: T) => ({
      onPointerDown: (event: React.PointerEvent) => down(event, what),
      // a finger that lies still asks for the browser's own menu
      onContextMenu: (event: React.MouseEvent) => began.current && event.preventDefault(),
    }),
    /** For the surface: what was dragged was not pressed. */
    onClickCapture: (event: React.MouseEvent) => {
      if (!ended.current) return;
      ended.current = false;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}
