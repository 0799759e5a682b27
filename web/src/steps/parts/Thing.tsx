import { Autocomplete } from "@mantine/core";
import { useContext } from "react";
import { useKitchen } from "@/api/queries";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";

interface Props {
  label: string;
  value: string;
  path: string;
  onChange: (what: string) => void;
}

/** Something to eat, of the shelf or by any name: what is not on the shelf is said to be unknown. */
export function Thing({ label, value, path, onChange }: Props) {
  const { library = [], ingredients = [] } = useKitchen().data ?? {};
  const { words } = useSaying();
  const faults = useContext(FaultsContext);
  return (
    <Autocomplete
      label={label}
      data={[...new Set([...ingredients, ...library].map((i) => i.key))]}
      maxLength={60}
      value={value}
      error={words(faults[path] ?? "")}
      onChange={onChange}
    />
  );
}
