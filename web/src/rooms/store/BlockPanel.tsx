/** The block one has in hand: its tag, its date, when it thaws, and what is done with it. */
import { Button, Modal, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { day, fromWall, wall } from "@/app/time";
import {
  type BlockView,
  type Change,
  leaves,
  printerQuery,
  sayOf,
  waitingOf,
} from "@/blocks/blocks";
import { readiness } from "@/blocks/MovesDue";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { MomentInput } from "@/measures/MomentInput";
import { capital } from "@/measures/words";
import { useOutbox } from "@/offline/outbox";
import { useGoOn } from "@/offline/useStartRun";
import { houseTime } from "@/wire/clock";
import { newId } from "@/wire/id";
import classes from "./Store.module.css";
import { ThawCurve } from "./ThawCurve";

type Asking = "move" | "divide" | "use" | "throw" | "want" | "weigh" | null;
type Saying = Omit<Change, "id" | "at">;

const TITLES: Record<NonNullable<Asking>, string> = {
  move: "Move it",
  divide: "Divide it",
  use: "Use some of it",
  throw: "Throw it away",
  want: "When it is wanted",
  weigh: "Put its weight right",
};

interface Props {
  view: BlockView;
  store: Schemas["StoreView"];
}

export function BlockPanel({ view, store }: Props) {
  const { block, standing } = view;
  const { say, words } = useSaying();
  const { said } = useTrade();
  const [asking, ask] = useState<Asking>(null);
  const waiting = waitingOf(useOutbox(), view.id);
  const goOn = useGoOn(view.id);
  const tell = (saying: Saying) => {
    void sayOf(view.id, saying);
    ask(null);
  };
  const gone = standing.gone !== null && standing.gone !== undefined;
  const away = gone || leaves(waiting);
  return (
    <aside className={classes.panel} aria-label={`Block ${view.mark}`}>
      <h2>
        {view.mark} · {block.name}
      </h2>
      <p className="quiet">
        {said("place", standing.place)}, shelf {standing.shelf} ·{" "}
        {say("mass", Math.round(standing.grams))}
        {view.by && ` · put away by ${view.by}`}
      </p>
      <TagFace view={view} />
      {waiting.length > 0 && (
        <p className={classes.waits} role="status">
          {waiting.length === 1 ? "One change is" : `${waiting.length} changes are`} kept on this
          tablet, and sent when the bakehouse answers.
        </p>
      )}
      {away ? (
        <p className={classes.gone}>
          {capital(view.state)}
          {standing.gone && ` ${day(standing.gone.at)}`}
          {standing.gone && view.said_by[standing.gone.change]
            ? ` by ${view.said_by[standing.gone.change]}`
            : ""}
          {standing.gone?.why ? `: ${standing.gone.why}` : ""}.
        </p>
      ) : (
        <>
          {standing.frozen && view.goes_on && (
            <Thaws view={view} ask={() => ask("want")} tell={tell} />
          )}
          {!standing.frozen && block.place === "freezer" && (
            <p className={classes.advice}>
              In the fridge since {day(standing.moved_at)}
              {standing.probed_c !== null &&
                standing.probed_c !== undefined &&
                `; its middle was ${say("temperature", standing.probed_c)}`}
              .
            </p>
          )}
          <div className={classes.actions}>
            {view.goes_on && (
              <Button
                size="md"
                variant={standing.frozen ? "default" : "filled"}
                loading={goOn.isPending}
                onClick={() => goOn.mutate()}
              >
                Go on: {block.next_step?.toLowerCase()}
              </Button>
            )}
            <Button
              size="md"
              variant={view.goes_on ? "default" : "filled"}
              onClick={() => tell({ kind: "taken" })}
            >
              Take it out
            </Button>
          </div>
          <div className={classes.actions}>
            <Button size="sm" variant="default" onClick={() => ask("move")}>
              Move
            </Button>
            <Button size="sm" variant="default" onClick={() => ask("divide")}>
              Divide
            </Button>
            <Button size="sm" variant="default" onClick={() => ask("use")}>
              Use some
            </Button>
            <Button size="sm" variant="default" onClick={() => ask("weigh")}>
              Weigh
            </Button>
            <Button size="sm" variant="default" onClick={() => ask("throw")}>
              Throw away
            </Button>
            <PrintTag id={view.id} />
          </div>
          {goOn.isError && (
            <p role="alert" className={classes.mind}>
              {words(sentence(goOn.error))}
            </p>
          )}
        </>
      )}
      <p>
        <Link to={`/store/${view.id}/trace`}>Where it came from, where it went</Link>
      </p>
      <History view={view} undo={(target) => tell({ kind: "undo", target })} />
      <Modal
        opened={asking !== null}
        onClose={() => ask(null)}
        title={asking ? `${view.mark}: ${TITLES[asking].toLowerCase()}` : ""}
        size={460}
      >
        {asking === "move" && <MoveIt view={view} store={store} tell={tell} />}
        {asking === "divide" && (
          <HowMuch
            view={view}
            label="Cut off"
            does="Divide it"
            half
            tell={(grams) => tell({ kind: "divided", grams, part: newId() })}
          />
        )}
        {asking === "use" && (
          <HowMuch
            view={view}
            label="Used"
            does="Use it"
            why="What for"
            tell={(grams, why) => tell({ kind: "used", grams, why: why || null })}
          />
        )}
        {asking === "weigh" && (
          <HowMuch
            view={view}
            label="It weighs"
            does="Keep this weight"
            more
            tell={(grams) => tell({ kind: "weighed", grams })}
          />
        )}
        {asking === "throw" && <ThrowAway tell={tell} />}
        {asking === "want" && <Want view={view} tell={tell} />}
      </Modal>
    </aside>
  );
}

/** At once on the house's label printer; on a page of A4 where it has none. */
function PrintTag({ id }: { id: string }) {
  const printer = useQuery(printerQuery);
  const print = useMutation({
    mutationFn: () => got(api.POST("/api/labels/print", { body: { of: [id] } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["printer"] }),
  });
  return (
    <>
      {printer.data?.name && (
        <Button
          size="sm"
          variant="default"
          loading={print.isPending}
          onClick={() => print.mutate()}
        >
          Print its tag
        </Button>
      )}
      <Button
        size="sm"
        variant="default"
        component="a"
        href={`/api/blocks/tags.pdf?of=${id}`}
        target="_blank"
      >
        {printer.data?.name ? "Tag on A4" : "Print its tag"}
      </Button>
      {print.isError && (
        <span role="alert" className={classes.mind}>
          {sentence(print.error)}
        </span>
      )}
      {print.isSuccess && <span role="status">Printed.</span>}
    </>
  );
}

/** The tag, as it is printed. */
function TagFace({ view }: { view: BlockView }) {
  const { block, standing } = view;
  const { words } = useSaying();
  return (
    <div className={classes.tag}>
      <div className={classes.says}>
        <b className={classes.name}>{block.name}</b>
        <span>
          <i className={classes.dots} aria-hidden="true">
            {"●".repeat(Math.min(block.turns ?? 0, 8))}
          </i>{" "}
          {view.what}
        </span>
        {block.next_step && (
          <span>
            next: <b className={classes.next}>{block.next_step.toLowerCase()}</b>
          </span>
        )}
        <span>
          {day(block.since)} · use by <b className={classes.next}>{day(standing.best_before)}</b>
        </span>
        <span>{words(block.contains ?? "")}</span>
      </div>
      <div className={classes.code}>
        <img src={`/api/blocks/${view.id}/code.svg`} alt="" width="96" height="96" />
        <strong>{view.mark}</strong>
      </div>
    </div>
  );
}

/** When it is to be moved, and its way there. */
function Thaws({
  view,
  ask,
  tell,
}: {
  view: BlockView;
  ask: () => void;
  tell: (s: Saying) => void;
}) {
  const { wanted } = view.standing;
  const { words } = useSaying();
  const thaw = useThaw(view.id, wanted?.at ?? null, wanted?.by ?? "fridge");
  if (!wanted)
    return (
      <p className={classes.advice}>
        It is frozen. Say when it is wanted, and when to move it is worked out.{" "}
        <Button size="compact-md" variant="default" onClick={ask}>
          It is wanted at…
        </Button>
      </p>
    );
  return (
    <div className={classes.advice}>
      {thaw.data && (
        <>
          <b>
            {wanted.by === "bench" ? "Onto the bench" : "Into the fridge"} {day(thaw.data.move_at)}
          </b>
          <p>
            {capital(
              readiness({
                ready_from: thaw.data.ready[0] ?? wanted.at,
                ready_until: thaw.data.ready[1] ?? null,
              }),
            )}
            : its middle is then {words(`{${thaw.data.ready_c[0]}|°C}`)} to{" "}
            {words(`{${thaw.data.ready_c[1]}|°C}`)}. {Math.round(thaw.data.size_mm[2] ?? 0)} mm
            thick, wrapped.
          </p>
          <ThawCurve thawing={thaw.data} wantedAt={wanted.at} />
        </>
      )}
      {thaw.isError && <p role="alert">{words(sentence(thaw.error))}</p>}
      <div className={classes.actions}>
        {wanted.by !== "bench" && (
          <Button
            size="compact-md"
            onClick={() => tell({ kind: "moved", place: "fridge", shelf: view.standing.shelf })}
          >
            Moved into the fridge
          </Button>
        )}
        <Button size="compact-md" variant="default" onClick={ask}>
          Another time
        </Button>
        <Button size="compact-md" variant="default" onClick={() => tell({ kind: "wanted" })}>
          Not wanted any more
        </Button>
      </div>
    </div>
  );
}

function useThaw(id: string, wantedAt: string | null, by: Schemas["Place"]) {
  return useQuery({
    queryKey: ["store", "thaw", id, wantedAt, by],
    queryFn: () =>
      got(
        api.GET("/api/blocks/{block_id}/thaw", {
          params: { path: { block_id: id }, query: { wanted_at: wantedAt ?? "", by } },
        }),
      ),
    enabled: wantedAt !== null,
    staleTime: 60_000,
  });
}

const MORNING = "05:00";
const DAY_MS = 24 * 3_600_000;

function Want({ view, tell }: { view: BlockView; tell: (s: Saying) => void }) {
  const tomorrow = wall(houseTime() + DAY_MS).slice(0, 10);
  const [until, setUntil] = useState<string | null>(
    view.standing.wanted?.at ?? fromWall(`${tomorrow}T${MORNING}`),
  );
  const [by, setBy] = useState<"fridge" | "bench">(
    view.standing.wanted?.by === "bench" ? "bench" : "fridge",
  );
  const [why, setWhy] = useState(view.standing.wanted?.why ?? "");
  const { words } = useSaying();
  const thaw = useThaw(view.id, until, by);
  const past = until !== null && Date.parse(until) <= houseTime();
  return (
    <div className={classes.asked}>
      <MomentInput label="It is wanted, thawed, at" value={until} onChange={setUntil} />
      <Choice
        label="It thaws"
        tight
        value={by}
        onChange={setBy}
        options={[
          { value: "fridge", label: "In the fridge" },
          { value: "bench", label: "On the bench" },
        ]}
      />
      <TextInput
        label="What for"
        value={why}
        maxLength={200}
        onChange={(e) => setWhy(e.currentTarget.value)}
      />
      {thaw.data && !past && (
        <p>
          Move it <b>{day(thaw.data.move_at)}</b>.
          {Date.parse(thaw.data.move_at) < houseTime() && (
            <b className={classes.mind}> That is past: it will be later than you want it.</b>
          )}
        </p>
      )}
      {thaw.isError && (
        <p role="alert" className={classes.mind}>
          {words(sentence(thaw.error))}
        </p>
      )}
      {past && <p className={classes.mind}>That time is past.</p>}
      <Button
        size="md"
        disabled={until === null || past}
        onClick={() => tell({ kind: "wanted", until, by, why: why || null })}
      >
        It is wanted then
      </Button>
    </div>
  );
}

function MoveIt({ view, store, tell }: Props & { tell: (s: Saying) => void }) {
  const { said } = useTrade();
  const [place, setPlace] = useState(view.standing.place);
  const [shelf, setShelf] = useState(String(view.standing.shelf));
  const cabinet = store.places.find((p) => p.place === place);
  return (
    <div className={classes.asked}>
      <Choice
        label="Where"
        tight
        value={place}
        onChange={setPlace}
        options={store.places.map((p) => ({
          value: p.place,
          label: capital(said("place", p.place)),
        }))}
      />
      <NativeSelect
        label="Shelf, from the top"
        value={shelf}
        onChange={(e) => setShelf(e.currentTarget.value)}
        data={Array.from({ length: cabinet?.shelves ?? 1 }, (_, n) => String(n + 1))}
      />
      <Button size="md" onClick={() => tell({ kind: "moved", place, shelf: Number(shelf) })}>
        Move it
      </Button>
    </div>
  );
}

interface HowMuchProps {
  view: BlockView;
  label: string;
  does: string;
  /** Half of it to begin with. */
  half?: boolean;
  /** It may be more than there is. */
  more?: boolean;
  why?: string;
  tell: (grams: number, why: string) => void;
}

function HowMuch({ view, label, does, half, more, why: asksWhy, tell }: HowMuchProps) {
  const there = view.standing.grams;
  const { say } = useSaying();
  const [grams, setGrams] = useState<number | null>(
    half ? Math.round(there / 2) : more ? Math.round(there) : null,
  );
  const [why, setWhy] = useState("");
  const wrong =
    grams === null || grams <= 0
      ? "How much is it?"
      : !more && grams > there
        ? `There are only ${say("mass", Math.round(there))} of it.`
        : half && grams >= there
          ? "That is all of it."
          : null;
  return (
    <div className={classes.asked}>
      <MeasureInput
        label={label}
        quantity="mass"
        value={grams}
        path="grams"
        onChange={setGrams}
        help={`There are ${say("mass", Math.round(there))}.`}
      />
      {asksWhy && (
        <TextInput
          label={asksWhy}
          value={why}
          maxLength={200}
          onChange={(e) => setWhy(e.currentTarget.value)}
        />
      )}
      <Button
        size="md"
        disabled={wrong !== null}
        onClick={() => grams !== null && tell(grams, why)}
      >
        {does}
      </Button>
      {wrong && <p className="quiet">{wrong}</p>}
    </div>
  );
}

const WHY = ["past its date", "butter ran out of it", "sour", "nobody knew what it was", "dropped"];

function ThrowAway({ tell }: { tell: (s: Saying) => void }) {
  const [why, setWhy] = useState("");
  return (
    <div className={classes.asked}>
      <div className={classes.actions}>
        {WHY.map((said) => (
          <Button
            key={said}
            size="md"
            variant={why === said ? "filled" : "default"}
            aria-pressed={why === said}
            onClick={() => setWhy(said)}
          >
            {capital(said)}
          </Button>
        ))}
      </div>
      <TextInput
        label="Why"
        value={why}
        maxLength={200}
        onChange={(e) => setWhy(e.currentTarget.value)}
      />
      <Button
        size="md"
        color="red"
        disabled={!why.trim()}
        onClick={() => tell({ kind: "thrown", why })}
      >
        Throw it away
      </Button>
    </div>
  );
}

/** What happened to it, and the last of it taken back. */
function History({ view, undo }: { view: BlockView; undo: (change: string) => void }) {
  const { words } = useSaying();
  const { history, undoable } = view.standing;
  if (history.length === 0) return null;
  return (
    <section className={classes.history}>
      <h3>What happened to it</h3>
      <ul>
        {history.map((h) => (
          <li key={h.change} data-undone={h.undone || undefined}>
            <time dateTime={h.at}>{day(h.at)}</time>
            <span>
              {h.undone ? <s>{words(h.says)}</s> : words(h.says)}
              {view.said_by[h.change] && <span className="quiet"> · {view.said_by[h.change]}</span>}
            </span>
            {h.change === undoable && (
              <Button size="compact-sm" variant="default" onClick={() => undo(h.change)}>
                Undo
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
