/** A dough seen inside: any fold by hand, its leaves guessed and shown, two methods side by side. */
import { Button, Checkbox, NativeSelect, Slider, TextInput } from "@mantine/core";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, byField, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { Title, Waiting } from "@/app/states";
import { Folding } from "@/drawings/Folding";
import { Choice } from "@/measures/Choice";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { figure } from "@/measures/quantity";
import classes from "./InsideRoom.module.css";
import { TrueSize } from "./TrueSize";

type Method = Schemas["LeafMethod"];
type Fold = Schemas["Fold"];
type Leaves = Schemas["LeavesAfter"];

const MOST = 8;
const FIRST: Method = {
  method: "half",
  folds: ["letter", "letter", "letter"],
  family: "croissant",
  dough_g: 2000,
  last_sheet_mm: 4,
  stacked: false,
};
const SECOND: Method = { ...FIRST, method: "two_thirds", folds: ["book", "letter"] };

const useInside = (of: Method) =>
  useQuery({
    queryKey: ["inside", of],
    queryFn: () => got(api.POST("/api/inside", { body: { ...of, turns: MOST } })),
    placeholderData: keepPreviousData,
    retry: false,
  });

export function InsideRoom() {
  const [turns, setTurns] = useState(1);
  const [one, setOne] = useState(FIRST);
  const [two, setTwo] = useState<Method | null>(null);
  const go = (to: number) => setTurns(Math.min(Math.max(to, 0), MOST));
  return (
    <>
      <Title>Inside a fold</Title>
      <div className="roomHead">
        <h1>Inside a fold</h1>
        <span className="quiet">guess the leaves first, then look</span>
        <div className="actions">
          <Checkbox
            size="md"
            label="Two methods side by side"
            checked={two !== null}
            onChange={(e) => setTwo(e.currentTarget.checked ? SECOND : null)}
          />
          <Button size="md" variant="default" component={Link} to="/lessons">
            To the lessons
          </Button>
        </div>
      </div>
      <div className={classes.turnsBar}>
        <Button variant="default" size="md" disabled={turns === 0} onClick={() => go(turns - 1)}>
          One fold back
        </Button>
        <Slider
          className={classes.turnsSlider}
          min={0}
          max={MOST}
          step={1}
          value={turns}
          label={null}
          thumbLabel="How many turns"
          marks={Array.from({ length: MOST + 1 }, (_, value) => ({ value, label: String(value) }))}
          onChange={go}
        />
        <Button size="md" disabled={turns === MOST} onClick={() => go(turns + 1)}>
          Next fold
        </Button>
      </div>
      <div className={classes.methods} data-two={two !== null || undefined}>
        <OneMethod name={two ? "First method" : "Method"} of={one} change={setOne} turns={turns} />
        {two && <OneMethod name="Second method" of={two} change={setTwo} turns={turns} />}
      </div>
    </>
  );
}

interface OneProps {
  name: string;
  of: Method;
  change: (next: Method) => void;
  turns: number;
}

function OneMethod({ name, of, change, turns }: OneProps) {
  const inside = useInside(of);
  const { options, said } = useTrade();
  const { foldTitle, fold } = useSaying();
  const atFields = byField(inside.error);
  const now = inside.data?.[turns];
  const foldAt = (turn: number): Fold => inside.data?.[turn]?.fold ?? "letter";
  const methods = options("method").filter((o) => o.value !== "none" && o.value !== "lumps");
  return (
    <FaultsContext.Provider value={atFields}>
      <section aria-label={name} className={classes.method}>
        <div className={classes.methodForm}>
          <NativeSelect
            label={name}
            data={methods}
            value={of.method}
            onChange={(e) => change({ ...of, method: e.currentTarget.value as Method["method"] })}
          />
          <Choice
            label="Dough"
            tight
            value={of.family}
            options={(["croissant", "puff"] as const).map((f) => ({
              value: f,
              label: said("family", f),
            }))}
            onChange={(family) => change({ ...of, family })}
          />
          {turns > 0 && (
            <Choice
              label={`Turn ${turns}`}
              tight
              value={foldAt(turns)}
              options={options("fold").map((f) => ({
                value: f.value as Fold,
                label: foldTitle(f.value),
              }))}
              onChange={(made) => {
                const many = Math.max(turns, of.folds?.length ?? 0);
                const folds = Array.from({ length: many }, (_, n) => foldAt(n + 1));
                folds[turns - 1] = made;
                change({ ...of, folds });
              }}
            />
          )}
          <MeasureInput
            label="Last sheet"
            quantity="length"
            path="last_sheet_mm"
            value={of.last_sheet_mm}
            onLeaving
            onChange={(v) => v !== null && change({ ...of, last_sheet_mm: v })}
          />
        </div>
        {inside.error && !atFields.last_sheet_mm && (
          <p className="bar mind" role="alert">
            {sentence(inside.error)}
          </p>
        )}
        {!now ? (
          inside.isPending && <Waiting what="the leaves" />
        ) : (
          <div className={classes.methodBody}>
            <Guess
              key={`${turns} ${of.method} ${of.folds.join()}`}
              leaves={now}
              before={inside.data?.[turns - 1]}
            />
            {now.turn ? (
              <div className={classes.folding}>
                <Folding step={now.turn} stacked={of.stacked} />
              </div>
            ) : (
              <p className="quiet">
                Locked in, {said("method", of.method)}. Go on to the first {fold(foldAt(1))}.
              </p>
            )}
            <TrueSize size={now.package} />
          </div>
        )}
      </section>
    </FaultsContext.Provider>
  );
}

const plain = (value: number) => figure("number", value, "metric");

/** The count is guessed before it is shown: what one has said, one looks at. */
function Guess({ leaves, before }: { leaves: Leaves; before: Leaves | undefined }) {
  const [guess, setGuess] = useState("");
  const [shown, show] = useState(leaves.turns === 0);
  const { words, fold } = useSaying();
  if (!shown)
    return (
      <form
        className={classes.guess}
        onSubmit={(event) => {
          event.preventDefault();
          show(true);
        }}
      >
        <p>
          {before &&
            `Before this fold there ${before.butter === 1 ? "was 1 butter layer" : `were ${before.butter} butter layers`}. `}
          How many will there be?
        </p>
        <TextInput
          size="lg"
          label="Your guess"
          inputMode="numeric"
          value={guess}
          onChange={(e) => setGuess(e.currentTarget.value.replace(/\D/g, "").slice(0, 7))}
        />
        <Button size="lg" type="submit">
          {guess === "" ? "Show me" : "Look"}
        </Button>
      </form>
    );
  const right = Number(guess) === leaves.butter;
  return (
    <div className={classes.leaves}>
      {guess !== "" && (
        <p className={classes.guessed} role="status">
          {right ? `Yes, ${leaves.butter}.` : `It is ${leaves.butter}, not ${guess}.`}{" "}
          {!right && before && leaves.fold && why(before, leaves, fold(leaves.fold))}
        </p>
      )}
      <div className={classes.leavesIn}>
        <LeafStack leaves={leaves} />
        <div>
          <p className={classes.bigCount}>
            {plain(leaves.butter)} <span className={classes.countWord}>butter layers</span>
          </p>
          <p>
            {plain(leaves.dough)} of dough, {plain(leaves.total)} leaves in all. Multiplied without
            joining dough on dough it would be {plain(leaves.naive)}.
          </p>
          <p>{words(leaves.says)}</p>
        </div>
      </div>
    </div>
  );
}

function why(before: Leaves, now: Leaves, fold: string): string {
  const times = now.butter / before.butter;
  return Number.isInteger(times)
    ? `A ${fold} lays ${times} on each other: ${before.butter} × ${times}.`
    : "Where dough lies on dough, the two join.";
}

const STACK = { wide: 220, high: 190 };

/** The last sheet's leaves from the side, as thick as they are to each other. */
function LeafStack({ leaves }: { leaves: Leaves }) {
  const { section } = leaves;
  const whole = section.thickness_um.reduce((sum, um) => sum + um, 0) || 1;
  let at = 0;
  const rects = section.thickness_um.map((um, n) => {
    const high = (STACK.high * um) / whole;
    at += high;
    const butter = (section.bottom === "butter") === (n % 2 === 0);
    return { y: STACK.high - at, high, butter };
  });
  return (
    <svg
      width={STACK.wide}
      height={STACK.high}
      role="img"
      aria-label={`The last sheet from the side: ${leaves.total} leaves${section.whole ? "" : ", a few of them from its middle"}.`}
    >
      {rects.map(({ y, high, butter }, n) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: leaves lie in order and never move
          key={n}
          x={0}
          y={y}
          width={STACK.wide}
          height={Math.max(high, 0.4)}
          fill={butter ? "var(--butter)" : "var(--dough)"}
        />
      ))}
    </svg>
  );
}
