/** The head of an open plan: its name and what it comes to, whether it is saved, and what to do with it. */
import { ActionIcon, Button, TextInput } from "@mantine/core";
import { IconArrowBackUp, IconArrowForwardUp } from "@tabler/icons-react";
import type { ReactNode } from "react";
import { made, type Plan, type Worked } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { SavedWord } from "@/drafts/SavedWord";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { How } from "@/steps/parts/How";
import { PlanMenu } from "./PlanMenu";
import classes from "./PlanRoom.module.css";
import type { PlanDesk } from "./usePlanDesk";

interface Props {
  id: number;
  desk: PlanDesk;
  readOnly: boolean;
  unread: boolean;
  starting: boolean;
  start: () => void;
  showKeys: () => void;
  searchFolds: () => void;
}

export function PlanHead({ id, desk, readOnly, unread, starting, start, ...menu }: Props) {
  const { plan, draft, worked, faults, change } = desk;
  const { words } = useSaying();
  return (
    <>
      <div className={classes.head}>
        <div className={classes.title}>
          <TextInput
            aria-label="Name of the plan"
            variant="unstyled"
            className={classes.name}
            value={plan.name}
            readOnly={readOnly}
            error={plan.name.trim() ? words(faults.name ?? "") : "A plan needs a name."}
            onChange={(e) => draft.change({ ...plan, name: e.currentTarget.value }, "name")}
          />
          <p>
            {worked && <Summary plan={plan} worked={worked} />}
            {" · "}
            <SavedWord saving={draft.saving} readOnly={readOnly} unread={unread} />
          </p>
        </div>
        <div className={classes.actions}>
          {!readOnly && (
            <>
              <Back label="Undo" keys="Ctrl Z" can={draft.canUndo} go={draft.undo}>
                <IconArrowBackUp size={20} />
              </Back>
              <Back label="Redo" keys="Ctrl Shift Z" can={draft.canRedo} go={draft.redo}>
                <IconArrowForwardUp size={20} />
              </Back>
            </>
          )}
          <PlanMenu
            id={id}
            plan={plan}
            worked={worked}
            readOnly={readOnly}
            change={change}
            {...menu}
          />
          <Button size="md" h={40} loading={starting} onClick={start}>
            Take it to the bench
          </Button>
        </div>
      </div>
      {draft.saving.state === "overtaken" && (
        <div className="bar mind" role="alert">
          <span>{draft.saving.why}</span>
          <Button variant="default" onClick={draft.drop}>
            Discard mine, use the other version
          </Button>
        </div>
      )}
    </>
  );
}

interface BackProps {
  label: string;
  keys: string;
  can: boolean;
  go: () => void;
  children: ReactNode;
}

const Back = ({ label, keys, can, go, children }: BackProps) => (
  <ActionIcon
    variant="default"
    size={40}
    aria-label={label}
    data-tip={`${label} (${keys})`}
    disabled={!can}
    onClick={go}
  >
    {children}
  </ActionIcon>
);

function Summary({ plan, worked }: { plan: Plan; worked: Worked }) {
  const { counted, say } = useSaying();
  const { said } = useTrade();
  const cut = made(worked, "cut");
  const facts = [
    said("family", plan.family),
    `dough ${say("mass", plan.dough.mass_g)}, in all ${say("mass", worked.total_g)}`,
    counted(worked.layers.butter, worked.layers.total),
    cut && `${cut.pieces} pieces`,
  ];
  return (
    <span className="quiet">
      {facts.filter(Boolean).join(" · ")} ·{" "}
      <How
        worked={worked}
        of="total_min"
        shown={span(worked.total_min)}
        label={`${span(worked.total_min)} in all`}
        position="bottom"
        inText
      />
    </span>
  );
}
