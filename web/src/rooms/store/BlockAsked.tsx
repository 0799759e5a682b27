/** What is asked for of a block in a dialog: where to, how much, why, and when it is wanted. */
import { Button, Modal, NativeSelect, TextInput } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { day, fromWall, wall } from "@/app/time";
import type { BlockView, Change } from "@/blocks/blocks";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { MomentInput } from "@/measures/MomentInput";
import { capital } from "@/measures/words";
import { houseTime } from "@/wire/clock";
import { newId } from "@/wire/id";
import classes from "./Store.module.css";
import { useThaw } from "./useThaw";

export type Asking = "move" | "divide" | "use" | "throw" | "want" | "weigh";
/** What is said of a block, without when and by what id. */
export type Saying = Omit<Change, "id" | "at">;

const TITLES: Record<Asking, string> = {
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

interface AskedProps extends Props {
  asking: Asking | null;
  close: () => void;
  tell: (saying: Saying) => void;
}

/** The dialog of whatever is asked for; nothing while nothing is. */
export function BlockAsked({ asking, close, view, store, tell }: AskedProps) {
  return (
    <Modal
      opened={asking !== null}
      onClose={close}
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
  );
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
