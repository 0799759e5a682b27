/** The cold store: shelves and what lies on them, and the block one has in hand. */
import { Button, Modal } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Schemas } from "@/api/client";
import { Nothing, Title, Waiting } from "@/app/states";
import { type BlockView, blockQuery, leaves, storeQuery, waitingOf } from "@/blocks/blocks";
import { MovesDue } from "@/blocks/MovesDue";
import { PutAwayForm } from "@/blocks/PutAwayForm";
import { useSaying } from "@/measures/likes";
import { useOutbox } from "@/offline/outbox";
import { BlockPanel } from "./BlockPanel";
import { Cabinet } from "./Cabinet";
import { FindTag } from "./FindTag";
import { PrinterOut } from "./PrinterOut";
import classes from "./Store.module.css";

export function StoreRoom() {
  const store = useQuery(storeQuery);
  if (store.isPending) return <Waiting what="the cold store" />;
  if (!store.data) return <Nothing error={store.error} retry={store.refetch} />;
  return <Store store={store.data} />;
}

type Asking = "put" | "find" | null;

function Store({ store }: { store: Schemas["StoreView"] }) {
  const { blockId } = useParams();
  const go = useNavigate();
  const outbox = useOutbox();
  const [asking, ask] = useState<Asking>(null);
  const there = store.blocks.filter((b) => !leaves(waitingOf(outbox, b.id)));
  const onTheWay = outbox.filter((e) => e.what === "block" && !e.aside).length;
  const urgent = there.filter((b) => b.urgent);
  const listedOne = store.blocks.find((b) => b.id === blockId);
  // what a tag opens may be gone since: it is shown all the same
  const other = useQuery({
    ...blockQuery(blockId ?? ""),
    enabled: blockId !== undefined && !listedOne,
  });
  const chosen: BlockView | undefined = listedOne ?? (blockId ? other.data : there[0]);
  const { say } = useSaying();
  return (
    <>
      <Title>Cold store</Title>
      <div className="roomHead">
        <h1>Cold store</h1>
        <span className="quiet">{summary(there, urgent)}</span>
        <div className="actions">
          <Button variant="default" size="md" component={Link} to="/store/stock">
            Stock
          </Button>
          <Button variant="default" size="md" component="a" href="/api/blocks.csv">
            Save as a table
          </Button>
          <Button variant="default" size="md" onClick={() => ask("find")}>
            Find a tag
          </Button>
          <Button size="md" onClick={() => ask("put")}>
            Put away
          </Button>
        </div>
      </div>
      {onTheWay > 0 && (
        <p className="bar" role="status">
          {onTheWay === 1 ? "One block is" : `${onTheWay} blocks are`} put away on this tablet, and
          will be on the shelves when the bakehouse answers.
        </p>
      )}
      <div className={classes.store}>
        <div>
          <div className={classes.cabinets}>
            {store.places.map((place) => (
              <Cabinet
                key={place.place}
                place={place}
                blocks={there.filter((b) => b.standing.place === place.place)}
                chosen={chosen?.id}
                choose={(id) => go(`/store/${id}`, { replace: blockId !== undefined })}
              />
            ))}
          </div>
          <section aria-label="To be taken out of the freezer" className={classes.under}>
            <h2>To be taken out of the freezer</h2>
            {store.moves.length === 0 && (
              <p className="quiet">
                Nothing yet. Say of a frozen block when it is wanted, and it stands here and on
                Today.
              </p>
            )}
            <MovesDue moves={store.moves} />
          </section>
          <PrinterOut />
          {store.wasted.length > 0 && (
            <section aria-label="Thrown away this week" className={classes.under}>
              <h2>
                Thrown away this week:{" "}
                {say("mass", Math.round(store.wasted.reduce((sum, w) => sum + w.grams, 0)))}
              </h2>
              <ul className={classes.wasted}>
                {store.wasted.map((w) => (
                  <li key={w.why}>
                    <b>{say("mass", Math.round(w.grams))}</b> {w.why}
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
        {chosen ? (
          <BlockPanel key={chosen.id} view={chosen} store={store} />
        ) : blockId && other.isError ? (
          <aside className={classes.panel}>
            <Nothing error={other.error} />
          </aside>
        ) : (
          <aside className={classes.panel}>
            <h2>Nothing lies here</h2>
            <p>
              Put something away from a dough at the bench, or enter what lies in the cold already.
              Each block gets a mark, a date and a tag.
            </p>
            <Button size="md" onClick={() => ask("put")}>
              Put away
            </Button>
          </aside>
        )}
      </div>
      <Modal opened={asking === "put"} onClose={() => ask(null)} title="Put away" size={680}>
        <PutAwayForm
          done={(id) => {
            ask(null);
            go(`/store/${id}`);
          }}
        />
      </Modal>
      <Modal opened={asking === "find"} onClose={() => ask(null)} title="Find a tag" size={460}>
        <FindTag
          found={(id) => {
            ask(null);
            go(`/store/${id}`);
          }}
        />
      </Modal>
    </>
  );
}

const listed = (marks: string[]) =>
  marks.length < 2 ? marks.join("") : `${marks.slice(0, -1).join(", ")} and ${marks.at(-1)}`;

function summary(there: BlockView[], urgent: BlockView[]): string {
  if (there.length === 0) return "empty";
  const past = urgent.filter((b) => b.state === "past its date");
  const today = urgent.filter((b) => b.state !== "past its date");
  const said = [
    today.length > 0 && `${listed(today.map((b) => b.mark))} to be used today`,
    past.length > 0
      ? `${listed(past.map((b) => b.mark))} past ${past.length === 1 ? "its" : "their"} date`
      : "nothing is past its date",
  ];
  return said.filter(Boolean).join(" · ");
}
