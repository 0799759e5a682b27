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
  const { library = [], ingredients = [], prepared = [] } = useKitchen().data ?? {};
  const shelved = new Map([...prepared, ...ingredients, ...library].map((i) => [i.key, i.name]));
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
        {[...shelved].map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </datalist>
    </>
  );
}
