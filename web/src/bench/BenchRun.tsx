import { ActionIcon, Button, Modal, Textarea } from "@mantine/core";
import { useInterval } from "@mantine/hooks";
import {
  IconArrowBackUp,
  IconMinus,
  IconPencil,
  IconPlus,
  IconScale,
  IconTemperature,
  IconX,
} from "@tabler/icons-react";
import { type ReactNode, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "@/api/client";
import { Nothing, Waiting } from "@/app/states";
import { clock as timeOfDay } from "@/app/time";
import { FromAbove } from "@/drawings/FromAbove";
import { aboveAt } from "@/drawings/views";
import { PieceWeights } from "@/finish/PieceWeights";
import { ShapingCardView } from "@/finish/ShapingCardView";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { Alarm } from "./Alarm";
import classes from "./BenchRun.module.css";
import { Entries } from "./Entries";
import { Keypad } from "./Keypad";
import { MayItGoIn } from "./MayItGoIn";
import { Moves } from "./Moves";
import { minutesBetween, type Now, type RunView, undoTarget, weighedNow, whereNow } from "./now";
import { RestBar } from "./RestBar";
import { Scales } from "./Scales";
import { TrayBoard, TrayGo } from "./TrayBoard";
import { useClock } from "./useClock";
import { useRun } from "./useRun";
import { useRunWarmth } from "./useRunWarmth";

/** One dough, one step at a time. */
export function BenchRun() {
  const { runId = "" } = useParams();
  const desk = useRun(runId);
  if (desk.run.data) return <Desk {...desk} view={desk.run.data} />;
  return (
    <div className={`night ${classes.page}`}>
      <main className={classes.middle}>
        {desk.run.isError ? (
          <Nothing error={desk.run.error} retry={desk.run.refetch} />
        ) : (
          <Waiting what="the dough" />
        )}
      </main>
    </div>
  );
}

type DeskProps = Omit<ReturnType<typeof useRun>, "run"> & { view: RunView };

function Desk({ view, waiting, offline, refusal, say, undo }: DeskProps) {
  const clock = useClock(view.now);
  const now = whereNow(view, waiting);
  const [asking, setAsking] = useState<"temperature" | "note" | "pieces" | null>(null);
  const over = now.phase === "finished" || now.phase === "given_up";
  const warmth = useRunWarmth(view);
  const sheet = view.worked.sheets.find((s) => s.stop === now.stop?.key);

  useEffect(() => {
    document.title = `${view.plan.name} at the bench`;
    return () => {
      document.title = "Eight Turn";
    };
  }, [view.plan.name]);

  return (
    <div className={`night ${classes.page}`}>
      <header className={classes.head}>
        <Link to="/bench" className={classes.back} aria-label="All doughs at the bench">
          ‹
        </Link>
        <b>{view.plan.name}</b>
        <span className="quiet">
          started {timeOfDay(view.started_at)}
          {view.started_by && ` by ${view.started_by}`}
        </span>
        <Marks done={now.turnsDone} of={view.standing.turns} />
      </header>
      {(offline || refusal) && (
        <p className={classes.notice} role="alert">
          {offline
            ? `No connection. ${waiting.length ? `${waiting.length} ${waiting.length === 1 ? "entry waits" : "entries wait"} here and will be sent.` : "What you enter is kept here and sent later."}`
            : refusal}
        </p>
      )}
      <main className={classes.main}>
        <section className={classes.now} aria-live="polite">
          {over ? (
            <Over now={now} view={view} />
          ) : now.trays.length > 0 ? (
            <TrayBoard view={view} trays={now.trays} clock={clock} waiting={waiting} say={say} />
          ) : now.phase === "rest" ? (
            <Resting now={now} clock={clock} name={view.plan.name} warmth={warmth}>
              <Moves moved={warmth?.moved ?? []} say={say} />
            </Resting>
          ) : (
            <Working now={now} clock={clock}>
              {sheet && <Scales sheet={sheet} weighed={weighedNow(view, waiting)} say={say} />}
              {now.stop?.kind === "lock_in" && <MayItGoIn view={view} />}
            </Working>
          )}
        </section>
        {!over && (
          <Ahead now={now} view={view}>
            <Entries view={view} waiting={waiting} />
          </Ahead>
        )}
      </main>
      {now.lastDeed && !over && <PutRight now={now} say={say} clock={clock} />}
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
          <Tile icon={<IconX />} label="Give up" onClick={() => say({ kind: "give_up" })} />
        )}
        {!over && (now.stop?.kind === "cut" || now.stop?.kind === "shape") && (
          <Tile icon={<IconScale />} label="Pieces" onClick={() => setAsking("pieces")} />
        )}
        {over ? (
          <Link className={classes.go} to={`/book/${view.id}`}>
            <b>To the record</b>
            <small>how it came out</small>
          </Link>
        ) : now.trays.length > 0 ? (
          <TrayGo view={view} trays={now.trays} clock={clock} say={say} />
        ) : (
          <GoButton now={now} clock={clock} say={say} />
        )}
      </footer>
      {now.stop && !over && (
        <p className={classes.caution}>{now.next?.caution ?? now.stop.caution}</p>
      )}
      <Modal
        opened={asking === "temperature"}
        onClose={() => setAsking(null)}
        title="Temperature"
        size={420}
      >
        <Keypad
          onEnter={(probe, value_c) => {
            say({ kind: "reading", probe, value_c });
            setAsking(null);
          }}
        />
      </Modal>
      <Modal
        opened={asking === "pieces"}
        onClose={() => setAsking(null)}
        title="Weigh the pieces"
        size={780}
      >
        <PieceWeights
          view={view}
          keep={(product, pieces_g) => {
            say({ kind: "pieces", product, pieces_g });
            setAsking(null);
          }}
        />
      </Modal>
      <Modal opened={asking === "note"} onClose={() => setAsking(null)} title="Note">
        <NoteForm
          onEnter={(text) => {
            say({ kind: "note", words: text });
            setAsking(null);
          }}
        />
      </Modal>
    </div>
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

function Working({ now, clock, children }: { now: Now; clock: Date; children?: ReactNode }) {
  const { words } = useSaying();
  if (!now.stop) return null;
  const [first] = now.stop.does;
  // Where there is only weighing, what to do stands beside the scales.
  const scalesOnly = now.stop.kind === "mix" || now.stop.kind === "preferment";
  return (
    <>
      <p className={classes.stopName}>{now.stop.name}</p>
      <h1>{words(first ?? "")}</h1>
      {children}
      {!scalesOnly && <Does stop={now.stop} small={children !== undefined} />}
      <p className={classes.since}>
        <b>{span(Math.max(minutesBetween(now.since, clock), 0))}</b> on the bench,{" "}
        {span(now.stop.bench_min)} planned
      </p>
    </>
  );
}

function Does({ stop, small }: { stop: Schemas["Stop"]; small?: boolean }) {
  const { words } = useSaying();
  return (
    <ul className={classes.does} data-small={small || undefined}>
      {stop.does.slice(1).map((line) => (
        <li key={line}>{words(line)}</li>
      ))}
    </ul>
  );
}

interface RestingProps {
  now: Now;
  clock: Date;
  name: string;
  warmth?: Schemas["UnderWay"];
  children: ReactNode;
}

function Resting({ now, clock, name, warmth, children }: RestingProps) {
  if (!now.stop?.rest || !now.until) return null;
  const window = warmth?.window?.stop === now.stop.key ? warmth.window : null;
  const date = (at: string | null | undefined) => (window && at ? new Date(at) : null);
  const marks = {
    soonest: date(warmth?.soonest_at),
    best: date(warmth?.best_at),
    latest: date(warmth?.latest_at),
  };
  const left = minutesBetween(clock, now.until);
  const place = now.stop.rest.place;
  const where = place === "bench" ? "on the bench" : `in the ${place}`;
  const ready = left <= 0;
  const [figure, words] = big(left);
  return (
    <>
      <p className={classes.stopName}>after {now.stop.name.toLowerCase()}</p>
      <h1>{ready ? "Take it out" : `Leave it ${where}`}</h1>
      <p className={classes.why}>
        {span(minutesBetween(now.since, clock))} of {span(minutesBetween(now.since, now.until))}{" "}
        gone. Then {now.next?.name.toLowerCase()}. {window && because(window)}
      </p>
      <p className={classes.big} data-ready={ready || undefined}>
        {figure} <small>{words}</small>
      </p>
      <RestBar since={now.since} until={now.until} now={clock} marks={window ? marks : undefined} />
      {window && (
        <Alarm
          key={now.stop.key}
          marks={marks}
          now={clock}
          name={name}
          why={`${now.stop.name}: ${because(window)}`}
        />
      )}
      {children}
    </>
  );
}

/** What sets the window, in a sentence. */
function because(window: Schemas["RestWindow"]): string {
  const late = window.latest_by ? `, and the latest by ${window.latest_by}` : "";
  return `The soonest is set by ${window.soonest_by}${late}.`;
}

/** What is left (rounded up, so that 0 means now) or over: a big figure and its words. */
function big(left: number): [string, string] {
  const whole = left > 0 ? Math.ceil(left) : Math.floor(-left);
  const end = left > 0 ? "more" : "over";
  return whole < 60
    ? [String(whole), `${whole === 1 ? "minute" : "minutes"} ${end}`]
    : [span(whole), end];
}

function Over({ now, view }: { now: Now; view: RunView }) {
  const given = now.phase === "given_up";
  return (
    <>
      <h1>{given ? "Given up" : "Done"}</h1>
      <p className={classes.why}>
        {given
          ? "It is in the book as far as it came."
          : view.worked.cut
            ? `${view.worked.cut.pieces} pieces. Say in the book how they came out.`
            : "The sheet is ready. Say in the book how it comes out."}
      </p>
    </>
  );
}

function Ahead({ now, view, children }: { now: Now; view: RunView; children: ReactNode }) {
  const { words } = useSaying();
  const stop = now.next;
  if (!stop) return null;
  const drawn = !["mix", "preferment", "shape", "wash", "bake", "look"].includes(stop.kind);
  const product = view.plan.cut?.products[0];
  return (
    <aside className={classes.aside}>
      <p>
        {now.phase === "rest" ? "Next: " : "This: "}
        <b>{stop.name}</b>
      </p>
      {now.phase === "rest" && <p>{words(stop.does[0] ?? "")}</p>}
      {drawn ? (
        <FromAbove {...aboveAt(stop, view.plan, view.worked)} minHeight={260} />
      ) : (
        now.phase === "work" && <Does stop={stop} small />
      )}
      {stop.kind === "shape" && product && <ShapingCardView card={product.card} brief />}
      {children}
    </aside>
  );
}

function GoButton({ now, clock, say }: { now: Now; clock: Date; say: DeskProps["say"] }) {
  const { stop } = now;
  // A press counts once: the button waits a moment for the screen to move on.
  const [held, setHeld] = useState(false);
  const release = useInterval(() => setHeld(false), 700);
  if (!stop) return null;
  const press = (kind: "done" | "out") => {
    if (held) return;
    setHeld(true);
    release.start();
    say({ kind, stop: stop.key });
  };
  if (now.phase === "rest" && now.until) {
    const left = minutesBetween(clock, now.until);
    const early = left > 0 ? `${span(Math.ceil(left))} before its time` : "its rest is over";
    return (
      <button
        type="button"
        className={classes.go}
        data-early={left > 0 || undefined}
        onClick={() => press("out")}
      >
        <b>Take it out</b>
        <small>{early}</small>
      </button>
    );
  }
  const rest = stop.rest && stop.rest.minutes > 0 ? stop.rest : null;
  const where = rest
    ? rest.place === "bench"
      ? "rest on the bench"
      : `into the ${rest.place}`
    : null;
  return (
    <button type="button" className={classes.go} onClick={() => press("done")}>
      <b>{stop.name} done</b>
      <small>{rest ? `then ${where}, ${span(rest.minutes)}` : "straight on"}</small>
    </button>
  );
}

function PutRight({ now, say, clock }: { now: Now; say: DeskProps["say"]; clock: Date }) {
  const deed = now.lastDeed;
  if (!deed) return null;
  const what = deed.kind === "done" ? `${deed.name} done` : "Taken out";
  const shift = (minutes: number) => say({ kind: "move", target: deed.id, minutes });
  return (
    <div className={classes.right}>
      <ActionIcon
        variant="outline"
        size={56}
        aria-label="A minute earlier"
        onClick={() => shift(-1)}
      >
        <IconMinus />
      </ActionIcon>
      <span>
        {what} <b>{timeOfDay(deed.at)}</b>
      </span>
      <ActionIcon
        variant="outline"
        size={56}
        aria-label="A minute later"
        disabled={minutesBetween(deed.at, clock) < 1}
        onClick={() => shift(1)}
      >
        <IconPlus />
      </ActionIcon>
    </div>
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

function NoteForm({ onEnter }: { onEnter: (text: string) => void }) {
  const [text, setText] = useState("");
  const quick = ["Springs back", "Butter shows", "Soft", "Too firm", "Sweating"];
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim()) onEnter(text.trim());
      }}
    >
      <div className={classes.quick}>
        {quick.map((word) => (
          <Button key={word} size="lg" variant="default" onClick={() => onEnter(word)}>
            {word}
          </Button>
        ))}
      </div>
      <Textarea
        label="In words"
        autosize
        minRows={2}
        size="lg"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
      />
      <Button type="submit" size="lg" mt={12} fullWidth disabled={!text.trim()}>
        Keep the note
      </Button>
    </form>
  );
}
