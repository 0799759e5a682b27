/** The strip of a plan with what changes its steps: one more, another place, by hand or by keys. */
import { ActionIcon, Menu } from "@mantine/core";
import { IconPlus } from "@tabler/icons-react";
import { withStep, withStepMoved } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { Strip } from "@/steps/Strip";
import { lasting, restMin } from "@/steps/stays";
import { clockWords, marksOf } from "@/steps/windows";
import { timeAt } from "./clockTimes";
import classes from "./PlanRoom.module.css";
import type { PlanDesk } from "./usePlanDesk";

export function StepRow({ desk, readOnly }: { desk: PlanDesk; readOnly: boolean }) {
  const { plan, worked, warmth, begins, stop, select, change, minding } = desk;
  const { limits } = useTrade();
  if (!worked || !stop) return null;
  const move = (from: number, to: number) => {
    if (from !== to && to >= 0 && to < plan.steps.length) {
      change(withStepMoved(plan, from, to), "steps");
    }
  };
  const n = plan.steps.findIndex((s) => s.id === stop.key);
  const step = plan.steps[n];
  const rest = step?.rest;
  const restGrip = step &&
    rest && {
      path: `steps[${n}].rest.stays[${stop.gives}].minutes`,
      label: `Rest after ${stop.name}`,
      value: restMin(rest),
      limits: limits[step.do]?.["rest.stays.minutes"],
      stops: marksOf(warmth?.windows.find((w) => w.stop === stop.key)),
      put: (minutes: number) =>
        change(withStep(plan, n, { rest: lasting(rest, stop.gives, minutes) }), `steps[${n}].rest`),
    };
  return (
    <div className={classes.stripRow}>
      <Strip
        plan={plan}
        worked={worked}
        selected={stop.key}
        onSelect={select}
        onMove={readOnly ? undefined : move}
        windows={warmth?.windows}
        minding={minding}
        restGrip={(!readOnly && restGrip) || undefined}
        under={
          warmth || begins
            ? (at) => {
                const said = clockWords(warmth?.clocks.find((c) => c.stop === at.key));
                const time = begins && timeAt(begins, at.starts_min);
                // what wants minding is said before the hour
                const text = time && !said.off ? time : said.text;
                return <span data-off={said.off || undefined}>{text}</span>;
              }
            : undefined
        }
      />
      {!readOnly && <AddStep desk={desk} />}
    </div>
  );
}

/** One more step after the chosen one: the core says how it begins. */
function AddStep({ desk }: { desk: PlanDesk }) {
  const { steps } = useTrade();
  const { plan, stop, amend, select } = desk;
  const at = plan.steps.findIndex((s) => s.id === stop?.key);
  const room = steps.filter((k) => plan.steps.filter((s) => s.do === k.do).length < k.most);
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <ActionIcon
          className={classes.add}
          variant="default"
          size={44}
          aria-label="Add a step"
          data-tip={`Add a step after ${stop?.name}`}
        >
          <IconPlus size={20} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>After {stop?.name}</Menu.Label>
        {room.map((k) => (
          <Menu.Item
            key={k.do}
            onClick={() =>
              amend({ change: "add_step", ingredient: k.do, index: at + 1 }, "steps", (made) =>
                select(made.steps[at + 1]?.id ?? ""),
              )
            }
          >
            {k.name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
