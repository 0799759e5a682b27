/** Taking hold of what is drawn: what a grip is, and the hand that holds it. */
import { createContext, useCallback, useContext, useEffect, useRef, useState } from "react";
import { useSaying } from "@/measures/likes";
import type { QuantityName } from "@/measures/quantity";
import { snapped, stepped } from "@/measures/steps";

/** Something in a drawing that can be taken hold of to change one value. */
export interface Grip {
  /** Where the value lies in its document. */
  path: string;
  /** What it is, as a field would be called. */
  label: string;
  quantity: QuantityName;
  value: number;
  limits?: readonly number[];
  /** Values that are felt in passing, and what each is. */
  stops?: readonly { at: number; said: string }[];
  /** Which way it is moved. */
  dir: "x" | "y";
  /** Where the line taken hold of stands for a value, in the drawing's own measure. */
  at: (value: number) => number;
  /** The value for a line that stands there. */
  value_at: (place: number) => number;
  /** From where to where the line runs, across the way it moves. */
  from: number;
  to: number;
  /** Where along its line the knob sits, as a share of it. */
  knob?: number;
  /** And how much further on, in points of the screen: out of the way of the others. */
  off?: number;
  /** Its line is drawn at rest too, where nothing else of the drawing shows it. */
  drawn?: boolean;
  /** Said at the hand beside the value, such as what a piece weighs. */
  also?: string;
  put: (value: number) => void;
}

/** What a finger lies on, so that it moves that and not the page; lines cannot say so by their style. */
export function useStill<E extends Element>(still = true) {
  const ref = useRef<E>(null);
  useEffect(() => {
    const hold = (event: Event) => event.preventDefault();
    const here = ref.current;
    if (still) here?.addEventListener("touchstart", hold, { passive: false });
    return () => here?.removeEventListener("touchstart", hold);
  }, [still]);
  return ref;
}

/** A line that moves by so much for each unit of its value. */
export const linear = (origin: number, per: number) => ({
  at: (value: number) => origin + per * value,
  value_at: (place: number) => (place - origin) / per,
});

/** What a hand needs to know of the document it changes. */
export interface Ground {
  take: () => void;
  letGo: (asItWas: boolean) => void;
  /** The last change is still being worked. */
  busy: boolean;
  /** What does not work as it is now. */
  wrong?: string;
}

export const GroundContext = createContext<Ground>({
  take: () => {},
  letGo: () => {},
  busy: false,
});

interface Held {
  /** As it was taken hold of: its lines do not move under the hand. */
  grip: Grip;
  value: number;
  /** The last value tried that worked; none yet. */
  good: number | null;
  /** Let go, and waiting to hear whether it works. */
  loose: boolean;
}

/** How near a stop the hand must come to feel it, in points of the screen. */
const FELT = 7;
const REFUSAL_MS = 5000;

/**
 * One hand for a drawing. What it holds is drawn at the hand at once; the document is changed as fast
 * as it can be worked. Let go on what does not work, it goes back to the last that did and says why.
 */
export function useHand() {
  const { likes } = useSaying();
  const ground = useContext(GroundContext);
  const [held, setHeld] = useState<Held | null>(null);
  const [refused, setRefused] = useState<{ path: string; why: string } | null>(null);
  const now = useRef<Held | null>(null);
  const waiting = useRef<number | null>(null);
  const putting = useRef<Grip["put"]>(() => {});
  const { busy, wrong, take } = ground;
  const letting = useRef(ground.letGo);
  letting.current = ground.letGo;

  const set = useCallback((next: Held | null) => {
    now.current = next;
    setHeld(next);
  }, []);

  const end = useCallback(
    (asItWas: boolean) => {
      waiting.current = null;
      if (now.current) letting.current(asItWas);
      set(null);
    },
    [set],
  );

  // What is gone from the screen is held no longer.
  useEffect(() => () => void (now.current && letting.current(false)), []);

  const { loose, value: tried } = held ?? {};
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was worked before is settled at once
  useEffect(() => {
    const hand = now.current;
    if (!hand || busy) return;
    if (waiting.current !== null) {
      putting.current(waiting.current);
      waiting.current = null;
      return;
    }
    if (!wrong && hand.value !== hand.grip.value) hand.good = hand.value;
    if (!hand.loose) return;
    if (wrong) {
      setRefused({ path: hand.grip.path, why: wrong });
      if (hand.good !== null) putting.current(hand.good);
    }
    // where nothing that was tried worked, it is as if nothing had been
    end(wrong !== undefined && hand.good === null);
  }, [busy, wrong, end, loose, tried]);

  useEffect(() => {
    if (!refused) return;
    const later = setTimeout(() => setRefused(null), REFUSAL_MS);
    return () => clearTimeout(later);
  }, [refused]);

  const within = (grip: Grip, value: number) => {
    const [least = Number.NEGATIVE_INFINITY, most = Number.POSITIVE_INFINITY] = grip.limits ?? [];
    return Math.min(Math.max(value, least), most);
  };

  const put = (value: number, put: Grip["put"]) => {
    const hand = now.current;
    if (!hand || value === hand.value) return;
    set({ ...hand, value });
    putting.current = put;
    waiting.current = busy ? value : null;
    if (!busy) put(value);
  };

  return {
    held,
    refused,
    /** It is taken hold of. */
    take: (grip: Grip) => {
      if (now.current) end(false);
      setRefused(null);
      take();
      set({ grip, value: grip.value, good: null, loose: false });
    },
    /** Moved to a place of the drawing, `scale` points of the screen for each of its units. */
    moveTo: (place: number, scale: number, latest: Grip) => {
      const hand = now.current;
      if (!hand || hand.loose) return;
      const { grip } = hand;
      const felt = grip.stops?.find((s) => Math.abs(grip.at(s.at) - place) * scale < FELT);
      // on a small drawing a point of the screen is more than a step: round values stay in reach
      const point = Math.abs(grip.value_at(place + 1 / scale) - grip.value_at(place));
      const free = felt?.at ?? snapped(grip.quantity, grip.value_at(place), likes.units, point);
      put(within(grip, free), latest.put);
    },
    /** Moved by a baker's step, or ten of them. */
    stepBy: (steps: number, grip: Grip) => {
      let value = now.current?.value ?? grip.value;
      for (let i = 0; i < Math.abs(steps); i += 1) {
        value = stepped(grip.quantity, value, Math.sign(steps), likes.units);
      }
      put(within(grip, value), grip.put);
    },
    stepTo: (value: number, grip: Grip) => put(within(grip, value), grip.put),
    /** Let go: it stays where it is, if that works. */
    release: () => {
      const hand = now.current;
      if (!hand) return;
      if (waiting.current !== null) {
        putting.current(waiting.current);
        waiting.current = null;
      }
      if (hand.value === hand.grip.value) end(false);
      else set({ ...hand, loose: true });
    },
    /** Let go, and everything as it was. */
    escape: () => end(true),
  };
}

export type Hand = ReturnType<typeof useHand>;
