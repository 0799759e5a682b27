/** The gaps that the house's own sheeter is rolled through. */
import { Button, TextInput } from "@mantine/core";
import { useContext, useState } from "react";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import classes from "./KitchenRoom.module.css";

interface Props {
  dial: number[];
  keep: (dial: number[]) => void;
}

/** The numbers of a text, in millimetres, the widest first; null where something is none. */
export function gapsOf(text: string): number[] | null {
  const parts = text.split(/[;\s]+|,(?!\d)/).filter(Boolean);
  const gaps = parts.map((part) => Number(part.replace(",", ".")));
  if (gaps.some((gap) => !Number.isFinite(gap) || gap <= 0)) return null;
  return [...new Set(gaps)].sort((a, b) => b - a);
}

export function Dial({ dial, keep }: Props) {
  const [text, setText] = useState<string | null>(null);
  const { words } = useSaying();
  const faults = useContext(FaultsContext);
  const shown = text ?? dial.join("; ");
  const gaps = gapsOf(shown);
  const refused = Object.entries(faults).find(([path]) => path.startsWith("dial"))?.[1];
  return (
    <fieldset className={classes.group}>
      <legend>The sheeter's own steps</legend>
      <TextInput
        label="Gaps it is rolled through, mm, the widest first"
        placeholder="worked out by how much a pass may take"
        description="Such as 40; 28; 20; 14; 10; 8; 6; 5; 4. Empty: by the shares above."
        inputWrapperOrder={["label", "input", "description", "error"]}
        value={shown}
        error={
          gaps ? words(refused ?? "") : "These are not all numbers. Write them apart: 40; 28; 20."
        }
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <Button
        variant="default"
        mt={8}
        disabled={!gaps || gaps.join() === dial.join()}
        onClick={() => gaps && keep(gaps)}
      >
        Keep these steps
      </Button>
    </fieldset>
  );
}
