/** A package as large as it is, on the screen: once the screen has been held against a ruler. */
import { Button } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./TrueSize.module.css";

const KEPT = "eight-turn.screen-scale";
const CHECK_MM = 100;
const BY = 0.01;

function read(): number {
  const kept = Number(localStorage.getItem(KEPT));
  return kept > 0.3 && kept < 3 ? kept : 1;
}

export function TrueSize({ size }: { size: Schemas["Size"] }) {
  const [open, setOpen] = useState(false);
  const [scale, setScale] = useState(read);
  const { say } = useSaying();
  const put = (to: number) => {
    const next = Math.round(Math.min(Math.max(to, 0.4), 2.5) * 100) / 100;
    localStorage.setItem(KEPT, String(next));
    setScale(next);
  };
  const mm = (value: number) => `${(value * scale).toFixed(2)}mm`;
  if (!open)
    return (
      <Button variant="default" onClick={() => setOpen(true)}>
        The package at true size
      </Button>
    );
  return (
    <section aria-label="At true size" className={classes.trueSize}>
      <div className={classes.check}>
        <span>Hold a ruler to this line: it should be {say("length", CHECK_MM)} long.</span>
        <i style={{ width: mm(CHECK_MM) }} data-check aria-hidden="true" />
        <Button variant="default" aria-label="The line is too long" onClick={() => put(scale - BY)}>
          Shorter
        </Button>
        <Button
          variant="default"
          aria-label="The line is too short"
          onClick={() => put(scale + BY)}
        >
          Longer
        </Button>
        <Button variant="default" onClick={() => setOpen(false)}>
          Put it away
        </Button>
      </div>
      <div className={classes.trueBox}>
        <div
          className={classes.truePackage}
          style={{ width: mm(size.length_mm), height: mm(size.width_mm) }}
          role="img"
          aria-label={`The package from above, ${say("length", Math.round(size.length_mm))} by ${say("length", Math.round(size.width_mm))}.`}
        >
          <span>
            {say("length", Math.round(size.length_mm))} × {say("length", Math.round(size.width_mm))}
          </span>
        </div>
        <div
          className={classes.trueSide}
          style={{ width: mm(size.length_mm), height: mm(size.thickness_mm) }}
          role="img"
          aria-label={`From the side it is ${say("length", Math.round(size.thickness_mm))} thick.`}
        />
      </div>
    </section>
  );
}
