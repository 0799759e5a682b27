/** The few inputs of the chosen stop. */
import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { span } from "@/measures/quantity";
import { BakePanel } from "./panels/BakePanel";
import { CutPanel } from "./panels/CutPanel";
import { DoughPanel } from "./panels/DoughPanel";
import { FinalPanel } from "./panels/FinalPanel";
import { LockInPanel } from "./panels/LockInPanel";
import { LookPanel } from "./panels/LookPanel";
import { MixPanel } from "./panels/MixPanel";
import { PrefermentPanel } from "./panels/PrefermentPanel";
import type { PanelProps } from "./panels/props";
import { ShapePanel } from "./panels/ShapePanel";
import { TurnPanel } from "./panels/TurnPanel";
import { WashPanel } from "./panels/WashPanel";
import classes from "./StopPanel.module.css";

const PANELS: Record<Schemas["StopKind"], (props: PanelProps) => ReactNode> = {
  preferment: PrefermentPanel,
  mix: MixPanel,
  dough: DoughPanel,
  lock_in: LockInPanel,
  turn: TurnPanel,
  final: FinalPanel,
  cut: CutPanel,
  shape: ShapePanel,
  wash: WashPanel,
  bake: BakePanel,
  look: LookPanel,
};

export function StopPanel(props: PanelProps) {
  const Panel = PANELS[props.stop.kind];
  return (
    <form
      className={classes.panel}
      aria-label={`${props.stop.name}: inputs`}
      onSubmit={(e) => e.preventDefault()}
    >
      <h2>{props.stop.name}</h2>
      <p className={classes.when}>
        {props.stop.starts_min > 0
          ? `${span(props.stop.starts_min)} after the start, `
          : "at the start, "}
        {span(props.stop.bench_min)} at the bench
      </p>
      <fieldset disabled={props.readOnly} className={classes.fields} key={props.stop.key}>
        <Panel {...props} />
      </fieldset>
    </form>
  );
}
