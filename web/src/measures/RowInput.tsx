import { NativeSelect } from "@mantine/core";
import type { Schemas } from "@/api/client";
import { MeasureInput } from "./MeasureInput";
import { OF_UNIT, quantityOf } from "./quantity";
import { capital } from "./words";

interface Props {
  /** Where it comes from may be said in other words, as of one that is only tried. */
  row: Omit<Schemas["Default"], "origin"> & { origin: string };
  set: (key: string, value: number) => void;
  /** Where the rows lie in the document that is sent. */
  at?: string;
}

/** A row's input: one of its choices, or a measure. */
export function RowInput({ row, set, at = "yours" }: Props) {
  if (row.choices.length > 0) {
    return (
      <NativeSelect
        label={capital(row.label)}
        value={String(Math.round(row.value))}
        data={row.choices.map((label, n) => ({ value: String(n), label }))}
        description={row.origin}
        inputWrapperOrder={["label", "input", "description"]}
        onChange={(e) => set(row.key, Number(e.currentTarget.value))}
      />
    );
  }
  return (
    <MeasureInput
      label={capital(row.label)}
      quantity={quantityOf(row)}
      path={`${at}.${row.key}`}
      value={row.value}
      onLeaving
      help={row.unit && !OF_UNIT[row.unit] ? `${row.unit}, ${row.origin}` : row.origin}
      onChange={(v) => v !== null && set(row.key, v)}
    />
  );
}
