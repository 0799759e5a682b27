/** A worked number that opens how this was worked out; plain where nobody says. */
import { Popover, UnstyledButton } from "@mantine/core";
import type { Worked } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import classes from "./Readout.module.css";

interface Props {
  worked: Worked;
  /** Path of the number in the worked plan, by which its working is known. */
  of?: string;
  shown: string;
  /** What the number is, for whoever hears it. */
  label: string;
  position?: "left" | "bottom";
  /** Within a sentence: as the words round it are. */
  inText?: boolean;
}

export function How({ worked, of, shown, label, position = "left", inText }: Props) {
  const { words } = useSaying();
  const working = worked.workings.find((w) => w.of === of);
  if (!working) return inText ? shown : <b>{shown}</b>;
  return (
    <Popover width={290} position={position}>
      <Popover.Target>
        <UnstyledButton
          className={inText ? classes.howInText : classes.how}
          aria-label={`${label}: how this was worked out`}
        >
          {shown}
        </UnstyledButton>
      </Popover.Target>
      <Popover.Dropdown>{words(working.text)}</Popover.Dropdown>
    </Popover>
  );
}
