/** Something is put away: of a dough under way, at one of its steps, or what lies there, by hand. */
import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { sentence, underWay } from "@/api/queries";
import { numbered } from "@/api/runs";
import { useTrade } from "@/api/trade";
import { clock, day } from "@/app/time";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { capital } from "@/measures/words";
import { houseTime } from "@/wire/clock";
import { offersQuery, putAway, storeQuery } from "./blocks";
import classes from "./PutAwayForm.module.css";

type Offer = Schemas["Offer"];

const BY_HAND = "";
const keyOf = (o: Offer) => `${o.stop} ${o.which}`;

interface Props {
  /** The dough it is of, where that is known already. */
  run?: string;
  /** The step that was done last there. */
  stop?: string;
  done: (id: string, said: Said) => void;
}

/** Where it was put, and whether that was all that lay there. */
export interface Said {
  where: string;
  all: boolean;
}

/** So much of what lay there is all of it: a bit of flour and what sticks to the knife. */
const ALL = 0.97;

export function PutAwayForm({ run: given, stop, done }: Props) {
  const { said, options } = useTrade();
  const { say, words } = useSaying();
  const runs = useQuery({ ...underWay, enabled: given === undefined });
  const store = useQuery(storeQuery);
  const [run, setRun] = useState(given ?? BY_HAND);
  const offers = useQuery({ ...offersQuery(run), enabled: run !== BY_HAND });
  const [chosen, choose] = useState<string | null>(null);
  const there = offers.data ?? [];
  // what lies there now is what the last step that was done has left
  const under = runs.data?.runs.find((r) => r.id === run);
  const at = there.findIndex((o) => o.name === under?.stop_name);
  const last = stop ?? there[under?.phase === "work" ? Math.max(at - 1, 0) : at]?.stop;
  const offer =
    there.find((o) => keyOf(o) === chosen) ??
    there.find((o) => o.stop === last && o.which === "other") ??
    there.find((o) => o.stop === last) ??
    there[0];
  const [grams, setGrams] = useState<number | null>(null);
  const [place, setPlace] = useState<Schemas["Place"] | null>(null);
  const [shelf, setShelf] = useState("1");
  const [holds, setHolds] = useState<Schemas["Holds"]>("dough");
  const [family, setFamily] = useState<Schemas["Family"]>("croissant");
  const [name, setName] = useState("");
  const [lots, setLots] = useState("");
  const [turns, setTurns] = useState<number | null>(0);
  const byHand = run === BY_HAND;
  const where: Schemas["Place"] = place ?? (byHand ? null : offer?.put) ?? "freezer";
  const cabinet = store.data?.places.find((p) => p.place === where);
  const keeping = offer && (where === "freezer" ? offer.freezer : offer.fridge);
  const until = keeping ? houseTime() + keeping.hours * 3_600_000 : null;
  const mass = grams ?? (byHand ? null : (offer?.grams ?? null));
  const keep = useMutation({
    mutationFn: () => {
      const at = { place: where, shelf: Number(shelf), lots };
      return byHand
        ? putAway({ ...at, holds, family, name, grams: mass, turns: turns ?? 0, which: "whole" })
        : putAway({ ...at, run, stop: offer?.stop, which: offer?.which ?? "whole", grams: mass });
    },
    onSuccess: (id) =>
      done(id, {
        where: said("place", where),
        all: !byHand && offer?.which === "whole" && (mass ?? 0) >= ALL * offer.grams,
      }),
  });
  const missing = byHand
    ? !name.trim()
      ? "Give it a name."
      : mass === null
        ? "Weigh it."
        : null
    : !offer
      ? "Choose what is put away."
      : null;
  const full = cabinet && cabinet.holds > 0 && cabinet.there >= cabinet.holds;
  return (
    <form
      className={classes.form}
      onSubmit={(e) => {
        e.preventDefault();
        if (!missing) keep.mutate();
      }}
    >
      {given === undefined && (
        <NativeSelect
          label="Of which dough"
          value={run}
          onChange={(e) => {
            setRun(e.currentTarget.value);
            choose(null);
          }}
          data={[
            { value: BY_HAND, label: "None: entered by hand" },
            ...(runs.data?.runs ?? []).map((r) => ({
              value: r.id,
              label: `${numbered(r)}, ${clock(r.started_at)}`,
            })),
          ]}
        />
      )}
      {byHand ? (
        <>
          <NativeSelect
            label="What it is"
            value={holds}
            onChange={(e) => setHolds(e.currentTarget.value as Schemas["Holds"])}
            data={options("holds")}
          />
          <TextInput
            label="Name"
            value={name}
            maxLength={80}
            onChange={(e) => setName(e.currentTarget.value)}
          />
          {holds !== "butter" && (
            <NativeSelect
              label="Family"
              value={family}
              onChange={(e) => setFamily(e.currentTarget.value as Schemas["Family"])}
              data={options("family")}
            />
          )}
          {holds === "dough" && (
            <MeasureInput
              label="Turns done"
              quantity="count"
              value={turns}
              path="put.turns"
              onChange={setTurns}
            />
          )}
        </>
      ) : (
        <NativeSelect
          label="What is put away"
          value={offer ? keyOf(offer) : ""}
          onChange={(e) => {
            choose(e.currentTarget.value);
            setGrams(null);
          }}
          data={there.map((o) => ({
            value: keyOf(o),
            label: `After ${o.name.toLowerCase()}: ${said("which", o.which)}, ${say("mass", Math.round(o.grams))}`,
          }))}
        />
      )}
      <MeasureInput
        key={offer && !byHand ? keyOf(offer) : "hand"}
        label="Weight"
        quantity="mass"
        value={mass === null ? null : Math.round(mass)}
        path="put.grams"
        onChange={setGrams}
      />
      <Choice
        label="Where"
        tight
        value={where}
        onChange={setPlace}
        options={(["fridge", "freezer"] as const).map((value) => ({
          value,
          label: capital(said("place", value)),
        }))}
      />
      <NativeSelect
        label="Shelf, from the top"
        value={shelf}
        onChange={(e) => setShelf(e.currentTarget.value)}
        data={Array.from({ length: cabinet?.shelves ?? 3 }, (_, n) => String(n + 1))}
      />
      <TextInput
        label="Lots of flour and butter, if known"
        value={lots}
        maxLength={200}
        onChange={(e) => setLots(e.currentTarget.value)}
      />
      {full && (
        <p className={classes.mind}>
          The {said("place", where)} holds {cabinet.holds}, and {cabinet.there} lie there.
        </p>
      )}
      {!byHand && until && (
        <p className={classes.told}>
          Use by <b>{day(until)}</b>. <span className="quiet">{words(keeping?.says ?? "")}</span>
        </p>
      )}
      {keep.isError && (
        <p role="alert" className={classes.mind}>
          {sentence(keep.error)}
        </p>
      )}
      <div className={classes.last}>
        <Button type="submit" size="md" loading={keep.isPending} disabled={missing !== null}>
          Put it away
        </Button>
        {missing && <span className="quiet">{missing}</span>}
      </div>
    </form>
  );
}
