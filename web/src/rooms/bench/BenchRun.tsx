import { Button, Modal } from "@mantine/core";
import {
  IconArrowBackUp,
  IconPencil,
  IconPlayerPause,
  IconPlayerPlay,
  IconScale,
  IconSnowflake,
  IconTemperature,
  IconX,
} from "@tabler/icons-react";
import { type ReactNode, useState } from "react";
import { Link, useParams } from "react-router";
import { useSession } from "@/api/queries";
import { numbered } from "@/api/runs";
import { useTrade } from "@/api/trade";
import { Nothing, Title, Waiting } from "@/app/states";
import { clock as timeOfDay } from "@/app/time";
import { PutAwayForm } from "@/blocks/PutAwayForm";
import { TrimmingsToUse } from "@/blocks/TrimmingsToUse";
import { PieceWeights } from "@/finish/PieceWeights";
import { AfterCopy } from "@/offline/AfterCopy";
import { useAwake } from "@/offline/awake";
import { Notices } from "@/offline/Notices";
import { Refused } from "@/offline/Refused";
import { Unsecured } from "@/offline/Unsecured";
import { TrayAlarms } from "./Alarm";
import classes from "./BenchRun.module.css";
import { Entries } from "./Entries";
import { deedOf, GoButton, PutRight } from "./GoButton";
import { Here } from "./Here";
import { Keypad } from "./Keypad";
import { MayItGoIn } from "./MayItGoIn";
import { Moves } from "./Moves";
import { NoteForm } from "./NoteForm";
import { type Event, type RunView, undoTarget, weighedNow, whereNow } from "./now";
import { Resting } from "./Resting";
import { Scales } from "./Scales";
import { TrayBoard, TrayGo } from "./TrayBoard";
import { usePedal } from "./usePedal";
import { type Saying, useRun } from "./useRun";
import { useRunWarmth } from "./useRunWarmth";
import { Ahead, Over, Working } from "./Working";

type Asking = "temperature" | "note" | "pieces" | "away" | "stop" | null;

/** One dough, one step at a time. */
export function BenchRun() {
  const { runId = "" } = useParams();
  const desk = useRun(runId);
  if (desk.run.data) return <Desk {...desk} view={desk.run.data} />;
  return (
    <div className={`night ${classes.page}`}>
      <main className={classes.middle}>
        {desk.run.error ? (
          <Nothing error={desk.run.error} retry={desk.run.refetch} />
        ) : (
          <Waiting what="the dough" />
        )}
      </main>
    </div>
  );
}

/** Whether somebody was called away and is not back; what is done at the dough ends it as well. */
const isAway = (view: RunView, waiting: Event[]) =>
  waiting.reduce(
    (away, e) => (e.kind === "away" ? true : ENDS.has(e.kind) ? false : away),
    view.standing.away.some((a) => !a.until),
  );
const ENDS = new Set<Event["kind"]>(["back", "done", "out", "in"]);

type DeskProps = Omit<ReturnType<typeof useRun>, "run"> & { view: RunView };

function Desk({ view, waiting, held, lostSince, say, undo }: DeskProps) {
  const me = useSession().data?.me?.username;
  const now = whereNow(view, waiting);
  const [asking, setAsking] = useState<Asking>(null);
  const away = isAway(view, waiting);
  const over = now.phase === "finished" || now.phase === "given_up";
  const deed = deedOf(now);
  const warmth = useRunWarmth(view);
  const oldDough = useTrade().old_dough;
  useAwake(!over);
  usePedal();
  const sheet = view.worked.sheets.find((s) => s.stop === now.stop?.key);
  const trimmed = view.plan.formula?.old_dough
    ? sheet?.lines.find((line) => line.ingredient === oldDough)
    : undefined;

  return (
    <div className={`night ${classes.page}`}>
      <Title>{`${view.plan.name} at the bench`}</Title>
      <header className={classes.head}>
        <Link to="/bench" className={classes.back} aria-label="All doughs at the bench">
          ‹
        </Link>
        <b>{numbered({ ...view, name: view.plan.name })}</b>
        <span className="quiet">
          started {timeOfDay(view.started_at)}
          {view.started_by && ` by ${view.started_by}`}
        </span>
        {me && <Here me={me} />}
        <Marks done={now.turnsDone} of={view.standing.turns} />
      </header>
      <Notices waiting={held} lostSince={lostSince} />
      <AfterCopy />
      <Unsecured />
      <Refused of={view.id} />
      <main className={classes.main}>
        <section className={classes.now} aria-live="polite">
          {over ? (
            <Over now={now} view={view} />
          ) : now.trays.length > 0 ? (
            <>
              <TrayAlarms run={view} now={now} name={view.plan.name} />
              <TrayBoard view={view} trays={now.trays} waiting={waiting} say={say} />
            </>
          ) : now.phase === "rest" ? (
            <Resting run={view} now={now} name={view.plan.name} warmth={warmth}>
              <Moves moved={warmth?.moved ?? []} say={say} />
            </Resting>
          ) : (
            <Working now={now}>
              {sheet && <Scales sheet={sheet} weighed={weighedNow(view, waiting)} say={say} />}
              {trimmed && (
                <TrimmingsToUse
                  family={view.plan.family}
                  neededG={trimmed.grams}
                  run={view.id}
                  into={view.plan.name}
                />
              )}
              {now.stop?.do === "lock_in" && <MayItGoIn view={view} />}
            </Working>
          )}
        </section>
        {!over && (
          <Ahead now={now} view={view}>
            <Entries view={view} waiting={waiting} />
          </Ahead>
        )}
      </main>
      {deed && !over && <PutRight deed={deed} say={say} />}
      <footer className={classes.foot}>
        <Tile
          icon={<IconTemperature />}
          label="Temperature"
          onClick={() => setAsking("temperature")}
        />
        <Tile icon={<IconPencil />} label="Note" onClick={() => setAsking("note")} />
        <Tile
          icon={<IconArrowBackUp />}
          label="Undo"
          onClick={undo}
          disabled={undoTarget(view, waiting) === null}
        />
        {!over && (
          <Tile
            icon={away ? <IconPlayerPlay /> : <IconPlayerPause />}
            label={away ? "Back at it" : "Interrupted"}
            onClick={() => say({ kind: away ? "back" : "away" })}
          />
        )}
        {!over && (
          <Tile icon={<IconX />} label="Stop this dough" onClick={() => setAsking("stop")} />
        )}
        {!over && (now.stop?.do === "cut" || now.stop?.do === "shape") && (
          <Tile icon={<IconScale />} label="Pieces" onClick={() => setAsking("pieces")} />
        )}
        {!over && (
          <Tile icon={<IconSnowflake />} label="Put away" onClick={() => setAsking("away")} />
        )}
        {over ? (
          <Link className={classes.go} to={`/book/${view.id}`}>
            <b>To the record</b>
            <small>how it came out</small>
          </Link>
        ) : now.trays.length > 0 ? (
          <TrayGo trays={now.trays} say={say} />
        ) : (
          <GoButton now={now} say={say} />
        )}
      </footer>
      {now.stop && !over && (
        <p className={classes.caution}>{now.next?.caution ?? now.stop.caution}</p>
      )}
      <Asked asking={asking} close={() => setAsking(null)} view={view} say={say} />
    </div>
  );
}

interface AskedProps {
  asking: Asking;
  close: () => void;
  view: RunView;
  say: (saying: Saying) => void;
}

/** What is asked for in a dialog; each answer goes into the record and shuts it. */
function Asked({ asking, close, view, say }: AskedProps) {
  const keep = (saying: Saying) => {
    say(saying);
    close();
  };
  return (
    <>
      <Modal opened={asking === "temperature"} onClose={close} title="Temperature" size={420}>
        <Keypad onEnter={(probe, value_c) => keep({ kind: "reading", probe, value_c })} />
      </Modal>
      <Modal opened={asking === "pieces"} onClose={close} title="Weigh the pieces" size={780}>
        <PieceWeights
          view={view}
          keep={(product, pieces_g) => keep({ kind: "pieces", product, pieces_g })}
        />
      </Modal>
      <Modal opened={asking === "note"} onClose={close} title="Note">
        <NoteForm run={view.id} onEnter={(text) => keep({ kind: "note", words: text })} />
      </Modal>
      <Modal opened={asking === "away"} onClose={close} title="Put away" size={680}>
        <PutAwayForm
          run={view.id}
          stop={view.standing.deeds.findLast((d) => d.kind === "done")?.stop}
          done={(_, said) => {
            // nothing is left at the bench: the dough goes on from its shelf
            if (said.all) say({ kind: "give_up", words: `put away in the ${said.where}` });
            close();
          }}
        />
      </Modal>
      <Modal opened={asking === "stop"} onClose={close} title="Stop this dough?">
        <p>
          The record keeps what was done so far. Undo starts the dough again, here or from the
          record.
        </p>
        <div className={classes.quick}>
          <Button size="lg" color="red" onClick={() => keep({ kind: "give_up" })}>
            Stop this dough
          </Button>
          <Button size="lg" variant="default" onClick={close}>
            Keep the dough
          </Button>
        </div>
      </Modal>
    </>
  );
}

function Marks({ done, of }: { done: number; of: number }) {
  const all = Array.from({ length: of }, (_, i) => ({ key: `turn ${i + 1}`, on: i < done }));
  return (
    <span className={classes.marks} role="img" aria-label={`${done} of ${of} turns done`}>
      <span className="quiet">turns</span>
      {all.map(({ key, on }) => (
        <i key={key} data-on={on || undefined} />
      ))}
    </span>
  );
}

interface TileProps {
  icon: ReactNode;
  label: string;
  onClick: () => void;
  disabled?: boolean;
}

function Tile({ icon, label, onClick, disabled }: TileProps) {
  return (
    <button type="button" className={classes.tile} onClick={onClick} disabled={disabled}>
      {icon}
      {label}
    </button>
  );
}
