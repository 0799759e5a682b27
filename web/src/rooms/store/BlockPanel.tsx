/** The block one has in hand: its tag, its date, when it thaws, and what is done with it. */
import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { day } from "@/app/time";
import { type BlockView, leaves, printerQuery, sayOf, waitingOf } from "@/blocks/blocks";
import { readiness } from "@/blocks/MovesDue";
import { useSaying } from "@/measures/likes";
import { capital } from "@/measures/words";
import { useOutbox } from "@/offline/outbox";
import { useGoOn } from "@/offline/useStartRun";
import { type Asking, BlockAsked, type Saying } from "./BlockAsked";
import classes from "./Store.module.css";
import { ThawCurve } from "./ThawCurve";
import { useThaw } from "./useThaw";

interface Props {
  view: BlockView;
  store: Schemas["StoreView"];
}

export function BlockPanel({ view, store }: Props) {
  const { block, standing } = view;
  const { say, words } = useSaying();
  const { said } = useTrade();
  const [asking, ask] = useState<Asking | null>(null);
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
      <BlockAsked asking={asking} close={() => ask(null)} view={view} store={store} tell={tell} />
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
