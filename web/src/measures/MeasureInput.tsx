/**
 * The one input for measures: knows its quantity and the person's units, takes `1/2 in`, `8mm` or
 * `0,8 cm`, says what it understood, keeps what cannot be read and says why.
 */
import { TextInput } from "@mantine/core";
import { type ReactNode, useContext, useEffect, useId, useRef, useState } from "react";
import { FaultsContext, MindedContext, UnreadContext } from "./faults";
import { useSaying } from "./likes";
import { parse, QUANTITIES, type QuantityName } from "./quantity";

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
  const { likes, figure, say, words } = useSaying();
  const faults = useContext(FaultsContext);
  const minded = useContext(MindedContext)[path];
  const id = useId();
  const shown = value === null || value === undefined ? "" : figure(quantity, value);
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
      setTyped({ text, complaint: read.complaint });
      return;
    }
    const understood = read.plain ? undefined : `understood as ${say(quantity, read.value)}`;
    setTyped({ text, understood });
    if (onLeaving || read.value !== value) give(read.value);
  };

  const unit = QUANTITIES[quantity].shown[likes.units];
  return (
    <TextInput
      id={id}
      label={hideLabel ? undefined : label}
      aria-label={hideLabel ? label : undefined}
      className="measure"
      data-path={path}
      inputMode={likes.units === "metric" ? "decimal" : "text"}
      autoComplete="off"
      value={typed?.text ?? shown}
      disabled={disabled}
      placeholder={emptyMeans}
      description={
        complaint
          ? undefined
          : (typed?.understood ?? (minded ? <Minded title={words(minded)} /> : help))
      }
      inputWrapperOrder={["label", "input", "description", "error"]}
      error={complaint ?? words(faults[path] ?? "")}
      rightSection={<span aria-hidden="true">{unit}</span>}
      rightSectionWidth={unit.length > 2 ? 58 : 36}
      rightSectionPointerEvents="none"
      onFocus={(event) => {
        if (!typed) setTyped({ text: shown });
        event.currentTarget.select();
      }}
      onBlur={() => {
        // What could not be read stays where it is, with its sentence.
        if (!complaint) setTyped(null);
        if (!complaint && held.current !== undefined && held.current !== value)
          onChange(held.current);
        held.current = undefined;
      }}
      onChange={(event) => take(event.currentTarget.value)}
    />
  );
}

/** Advice about this very field, in a few words; the whole sentence stands with the advice. */
function Minded({ title }: { title: string }) {
  return <span className="minded">{title}</span>;
}
