import { TextInput } from "@mantine/core";
import { useContext, useId } from "react";
import { useKitchen } from "@/api/queries";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";

interface Props {
  label: string;
  value: string;
  path: string;
  onChange: (what: string) => void;
  placeholder?: string;
}

/** Something to eat, of the shelf or by any name: what is not on the shelf is said to be unknown. */
export function Thing({ label, value, path, onChange, placeholder }: Props) {
  const { library = [], ingredients = [] } = useKitchen().data ?? {};
  const { words } = useSaying();
  const faults = useContext(FaultsContext);
  const shelf = useId();
  return (
    <>
      <TextInput
        label={label}
        list={shelf}
        maxLength={60}
        autoComplete="off"
        placeholder={placeholder}
        value={value}
        error={words(faults[path] ?? "")}
        onChange={(event) => onChange(event.currentTarget.value)}
      />
      <datalist id={shelf}>
        {[...new Set([...ingredients, ...library].map((i) => i.key))].map((key) => (
          <option key={key} value={key} />
        ))}
      </datalist>
    </>
  );
}
