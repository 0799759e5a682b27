import { Button } from "@mantine/core";
import { useWindowEvent } from "@mantine/hooks";
import { useEffect, useState } from "react";
import classes from "@/rooms/bench/Keypad.module.css";
import { useSaying } from "./likes";
import { parse, QUANTITIES, type QuantityName } from "./quantity";

interface Props {
  quantity: QuantityName;
  label: string;
  /** Whether figures below zero make sense. */
  minus?: boolean;
  example: string;
  /** What is wrong with a value that can be read, if anything. */
  refuse: (value: number, shown: string) => string | null;
  onEnter: (value: number) => void;
}

const drafts = new Map<string, string>();
const KEYS: Record<string, string> = { ",": ".", "-": "−" };

/** Figures without typing. */
export function Pad({ quantity, label, minus, example, refuse, onEnter }: Props) {
  const { likes } = useSaying();
  // closed before it was saved, it opens with what was entered
  const draft = `${label} ${quantity}`;
  const [text, setText] = useState(drafts.get(draft) ?? "");
  useEffect(() => {
    if (text) drafts.set(draft, text);
    else drafts.delete(draft);
  }, [draft, text]);
  const [complaint, setComplaint] = useState("");
  const unit = QUANTITIES[quantity].shown[likes.units];
  const keys = ["7", "8", "9", "4", "5", "6", "1", "2", "3", minus ? "−" : "00", "0", "."];
  const press = (key: string) => {
    setComplaint("");
    setText((t) => {
      if (key === "−") return t.startsWith("-") ? t.slice(1) : `-${t}`;
      if (key === "." && t.includes(".")) return t;
      return t.length < 7 ? t + key : t;
    });
  };
  const enter = () => {
    const read = parse(quantity, text, likes.units);
    if ("complaint" in read) setComplaint(`Press the figures first, such as ${example}.`);
    else {
      const refusal = refuse(read.value, `${text} ${unit}`);
      if (refusal) setComplaint(refusal);
      else {
        drafts.delete(draft);
        setText("");
        onEnter(read.value);
      }
    }
  };
  // a keyboard that is there is understood as well: digits, comma, enter
  useWindowEvent("keydown", (event) => {
    const written = event.target instanceof HTMLInputElement && event.target.type !== "radio";
    if (event.ctrlKey || event.metaKey || event.altKey || written) return;
    const key = KEYS[event.key] ?? event.key;
    if (/^\d$/.test(key) || key === "." || (key === "−" && minus)) press(key);
    else if (key === "Backspace") setText((t) => t.slice(0, -1));
    else if (key === "Enter" && !(event.target instanceof HTMLButtonElement)) enter();
    else return;
    event.preventDefault();
  });
  return (
    <>
      <output className={classes.shown} aria-label={label}>
        {text.replace("-", "−") || " "} <small>{unit}</small>
      </output>
      {complaint && (
        <p className={classes.complaint} role="alert">
          {complaint}
        </p>
      )}
      <div className={classes.keys}>
        {keys.map((key) => (
          <button
            type="button"
            key={key}
            aria-label={key === "−" ? "minus" : key === "." ? "point" : key}
            onClick={() => press(key)}
          >
            {key}
          </button>
        ))}
      </div>
      <div className={classes.enter}>
        <Button
          variant="default"
          size="xl"
          px={10}
          aria-label="Delete digit"
          onClick={() => setText((t) => t.slice(0, -1))}
        >
          ⌫
        </Button>
        <Button size="xl" onClick={enter}>
          Save
        </Button>
      </div>
    </>
  );
}
