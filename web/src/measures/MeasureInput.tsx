/**
 * The one input for measures: knows its quantity and the person's units, takes `1/2 in`, `8mm` or
 * `0,8 cm`, says what it understood, keeps what cannot be read and says why.
 */
import { TextInput } from "@mantine/core";
import { type ReactNode, useContext, useEffect, useId, useRef, useState } from "react";
import { FaultsContext, MindedContext, UnreadContext, useLit } from "./faults";
import { useSaying } from "./likes";
import { parse, QUANTITIES, type QuantityName, span } from "./quantity";
import { stepped } from "./steps";

interface Props {
  label: string;
  quantity: QuantityName;
  value: number | null | undefined;
  /** Where the value lies in its document: faults from the server are shown by this path. */
  path: string;
  onChange: (value: number | null) => void;
  /** What an empty input means, if it may be empty. */
  emptyMeans?: string;
  help?: ReactNode;
  disabled?: boolean;
  /** Take the value when the field is left, not at every key. */
  onLeaving?: boolean;
  /** In a table, where the head says what it is. */
  hideLabel?: boolean;
}

interface Typed {
  text: string;
  complaint?: string;
  understood?: string;
}

export function MeasureInput(props: Props) {
  const {
    label,
    quantity,
    value,
    path,
    onChange,
    emptyMeans,
    help,
    disabled,
    onLeaving,
    hideLabel,
  } = props;
  const held = useRef<number | null | undefined>(undefined);
  const give = (next: number | null) => {
    if (onLeaving) held.current = next;
    else onChange(next);
  };
  // A field that is taken away under the hand gives what was typed in it, as one that is left does.
  const last = useRef(onChange);
  last.current = onChange;
  useEffect(
    () => () => {
      if (typeof held.current === "number") last.current(held.current);
    },
    [],
  );
  const { likes, figure, say, words } = useSaying();
  const faults = useContext(FaultsContext);
  const minded = useContext(MindedContext)[path];
  const lit = useLit(path);
  const id = useId();
  // Long times are read as hours and minutes, as everywhere else.
  const hours = (minutes: number) =>
    quantity === "time" && minutes >= 60 && Number.isInteger(minutes);
  const written = (v: number) => (hours(v) ? span(v) : figure(quantity, v));
  const shown = value === null || value === undefined ? "" : written(value);
  // While it is being typed, and as long as it cannot be read, the field is its writer's: what comes
  // from outside (undo, another field, a late answer) shows only in a field that nobody is in.
  const [typed, setTyped] = useState<Typed | null>(null);
  const complaint = typed?.complaint;

  // What cannot be read is not saved: the form it stands in must know.
  const tell = useContext(UnreadContext);
  const unread = complaint !== undefined;
  useEffect(() => {
    tell(path, unread);
    return () => tell(path, false);
  }, [tell, path, unread]);

  const take = (text: string) => {
    if (!text.trim() && emptyMeans) {
      setTyped({ text, understood: emptyMeans });
      give(null);
      return;
    }
    const read = parse(quantity, text, likes.units);
    if ("complaint" in read) {
      held.current = undefined;
      setTyped({ text, complaint: read.complaint });
      return;
    }
    const understood = read.plain ? undefined : `understood as ${say(quantity, read.value)}`;
    setTyped({ text, understood });
    if (onLeaving || read.value !== value) give(read.value);
  };

  /** A baker's step up or down from what stands there. */
  const step = (way: number) => {
    const read = parse(quantity, typed?.text ?? shown, likes.units);
    if ("complaint" in read) return;
    const next = stepped(quantity, read.value, way, likes.units);
    setTyped({ text: written(next) });
    give(next);
  };
  const stepping = useRef(step);
  stepping.current = step;
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    // over a field that one is in, the wheel turns it and not the page
    const turn = (event: WheelEvent) => {
      if (document.activeElement !== input.current || event.deltaY === 0) return;
      event.preventDefault();
      stepping.current(event.deltaY < 0 ? 1 : -1);
    };
    const here = input.current;
    here?.addEventListener("wheel", turn, { passive: false });
    return () => here?.removeEventListener("wheel", turn);
  }, []);

  const text = typed?.text ?? shown;
  const unit =
    /[a-z]/i.test(text) && quantity === "time" ? "" : QUANTITIES[quantity].shown[likes.units];
  return (
    <TextInput
      id={id}
      ref={input}
      label={hideLabel ? undefined : label}
      aria-label={hideLabel ? label : undefined}
      className="measure"
      data-lit={lit || undefined}
      inputMode={likes.units === "metric" ? "decimal" : "text"}
      autoComplete="off"
      value={text}
      disabled={disabled}
      placeholder={emptyMeans}
      description={
        complaint
          ? undefined
          : (typed?.understood ?? (minded ? <Minded title={words(minded)} /> : help))
      }
      inputWrapperOrder={["label", "input", "description", "error"]}
      error={complaint ?? words(faults[path] ?? "")}
      rightSection={
        <>
          <span aria-hidden="true">{unit}</span>
          {typed && (
            <span className="steps">
              {[-1, 1].map((way) => (
                <button
                  type="button"
                  key={way}
                  tabIndex={-1}
                  aria-label={`${label}: a step ${way < 0 ? "less" : "more"}`}
                  // the field keeps the focus, and what is typed in it
                  onPointerDown={(e) => e.preventDefault()}
                  onClick={() => step(way)}
                >
                  {way < 0 ? "−" : "+"}
                </button>
              ))}
            </span>
          )}
        </>
      }
      rightSectionWidth={unit.length > 2 ? 58 : 36}
      rightSectionPointerEvents="none"
      onKeyDown={(event) => {
        const way = { ArrowUp: 1, ArrowDown: -1 }[event.key];
        if (!way || event.altKey || event.ctrlKey || event.metaKey) return;
        event.preventDefault();
        step(way);
      }}
      onFocus={(event) => {
        if (!typed) setTyped({ text: shown });
        event.currentTarget.select();
      }}
      onBlur={() => {
        // What could not be read stays where it is, with its sentence.
        if (!complaint) setTyped(null);
        const given = held.current;
        held.current = undefined;
        if (!complaint && given !== undefined && given !== value) onChange(given);
      }}
      onChange={(event) => take(event.currentTarget.value)}
    />
  );
}

/** Advice about this very field, in a few words; the whole sentence stands with the advice. */
function Minded({ title }: { title: string }) {
  return <span className="minded">{title}</span>;
}
