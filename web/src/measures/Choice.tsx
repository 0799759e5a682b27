/** One of a few, as buttons that can be hit with a floury finger. */
import { useId } from "react";
import classes from "./Choice.module.css";

interface Props<V extends string> {
  label: string;
  value: V;
  options: { value: V; label: string; hint?: string }[];
  onChange: (value: V) => void;
  /** All in one row. */
  tight?: boolean;
}

export function Choice<V extends string>({ label, value, options, onChange, tight }: Props<V>) {
  const name = useId();
  return (
    <fieldset className={classes.choice} data-tight={tight || undefined}>
      <legend>{label}</legend>
      {options.map((option) => (
        <label key={option.value} title={option.hint} className={classes.option}>
          <input
            type="radio"
            name={name}
            value={option.value}
            checked={option.value === value}
            onChange={() => onChange(option.value)}
          />
          <span>{option.label}</span>
        </label>
      ))}
    </fieldset>
  );
}
