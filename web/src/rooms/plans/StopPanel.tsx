/** The few inputs of the chosen stop, and what moves, doubles or removes it. */
import { ActionIcon } from "@mantine/core";
import { IconArrowLeft, IconArrowRight, IconCopy, IconTrash } from "@tabler/icons-react";
import { freshId, withoutStep, withStepAt, withStepMoved } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { span } from "@/measures/quantity";
import { kindOf } from "@/steps/kinds";
import { How } from "@/steps/parts/How";
import type { PanelProps } from "@/steps/parts/props";
import { Terms } from "@/steps/Terms";
import { timeAt } from "./clockTimes";
import classes from "./StopPanel.module.css";

export function StopPanel({ begins, ...props }: PanelProps & { begins: string | null }) {
  const { stop, readOnly, step, worked } = props;
  const { Panel } = kindOf(step.do);
  return (
    <form
      className={classes.panel}
      aria-label={`${stop.name}: inputs`}
      onSubmit={(e) => e.preventDefault()}
    >
      <div className={classes.head}>
        <h2>{stop.name}</h2>
        {!readOnly && <StepTools {...props} />}
      </div>
      <p className={classes.when}>
        {begins
          ? `${timeAt(begins, stop.starts_min)}, `
          : stop.starts_min > 0
            ? `${span(stop.starts_min)} after the start, `
            : "at the start, "}
        <How
          worked={worked}
          of={`strip[${stop.n}].bench_min`}
          shown={span(stop.bench_min)}
          label={`${span(stop.bench_min)} at the bench`}
          position="bottom"
          inText
        />{" "}
        at the bench
      </p>
      <Terms of={step} />
      <fieldset disabled={readOnly} className={classes.fields} key={stop.key}>
        <Panel {...props} />
      </fieldset>
    </form>
  );
}

function StepTools({ stop, step, plan, worked, change, select }: PanelProps) {
  const { steps } = useTrade();
  const kind = steps.find((k) => k.do === step.do);
  const many = plan.steps.filter((s) => s.do === step.do).length;
  const move = (to: number) => change(withStepMoved(plan, stop.n, to), "steps");
  const beside = worked.strip[stop.n - 1] ?? worked.strip[stop.n + 1];
  return (
    <span className={classes.tools}>
      <Tool label="Earlier" can={stop.n > 0} go={() => move(stop.n - 1)}>
        <IconArrowLeft size={16} />
      </Tool>
      <Tool label="Later" can={stop.n < plan.steps.length - 1} go={() => move(stop.n + 1)}>
        <IconArrowRight size={16} />
      </Tool>
      {kind && kind.most > 1 && (
        <Tool
          label="Copy this step"
          can={many < kind.most}
          go={() => {
            const id = freshId(plan, step.do);
            change(withStepAt(plan, stop.n + 1, step), "steps");
            select(id);
          }}
        >
          <IconCopy size={16} />
        </Tool>
      )}
      {kind && !kind.needed && (
        <Tool
          label={`Remove ${stop.name}`}
          can
          go={() => {
            change(withoutStep(plan, stop.n), "steps");
            select(beside?.key ?? "");
          }}
        >
          <IconTrash size={16} />
        </Tool>
      )}
    </span>
  );
}

interface ToolProps {
  label: string;
  can: boolean;
  go: () => void;
  children: React.ReactNode;
}

const Tool = ({ label, can, go, children }: ToolProps) => (
  <ActionIcon
    variant="subtle"
    color="dark"
    size={32}
    aria-label={label}
    data-tip={label}
    disabled={!can}
    onClick={go}
  >
    {children}
  </ActionIcon>
);
