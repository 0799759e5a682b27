import { Collapse, UnstyledButton } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Judged } from "@/cold/Judged";
import judged from "@/cold/Judged.module.css";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./panels.module.css";

/** The lock-in judged before there is a run: two temperatures, and what a corner of the block does. */
export function MayItGoIn({ plan }: { plan: Schemas["Plan"] }) {
  const [open, { toggle }] = useDisclosure(false);
  const [dough_c, setDough] = useState<number | null>(7);
  const [butter_c, setButter] = useState<number | null>(13);
  return (
    <div>
      <UnstyledButton className={classes.search} onClick={toggle} aria-expanded={open}>
        May it go in? Dough and butter judged
      </UnstyledButton>
      <Collapse expanded={open} transitionDuration={0}>
        <div className={classes.pair}>
          <MeasureInput
            label="Dough at"
            quantity="temperature"
            path="feel.dough_c"
            value={dough_c}
            onChange={setDough}
          />
          <MeasureInput
            label="Butter at"
            quantity="temperature"
            path="feel.butter_c"
            value={butter_c}
            onChange={setButter}
          />
        </div>
        {open && dough_c !== null && butter_c !== null && (
          <div className={judged.small}>
            <Judged plan={plan} dough_c={dough_c} butter_c={butter_c} />
          </div>
        )}
      </Collapse>
    </div>
  );
}
