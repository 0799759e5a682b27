/** Which folds would do: every sequence searched, the best beside the plan as it is. */
import { Button, Modal, Progress } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { stepsOf } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { Comparison } from "./Comparison";
import classes from "./FoldSearch.module.css";

const MOST_TURNS = 8;
const FOLDS = 4;
const BESIDE = 3;
const ALL = Array.from({ length: MOST_TURNS }, (_, i) => FOLDS ** (i + 1)).reduce((a, b) => a + b);

interface State {
  searched: number;
  wouldDo: number;
  best: Schemas["Suggestion"][];
  whyNone: string;
  done: boolean;
  error?: string;
}
const START: State = { searched: 0, wouldDo: 0, best: [], whyNone: "", done: false };

export const better = (a: Schemas["Suggestion"], b: Schemas["Suggestion"]): number => {
  const at = a.rank.findIndex((rank, i) => rank !== b.rank[i]);
  return at < 0 ? 0 : (a.rank[at] as number) - (b.rank[at] as number);
};

interface Props {
  plan: Schemas["Plan"];
  worked: Schemas["WorkedPlan"];
  take?: (plan: Schemas["Plan"]) => void;
  onClose: () => void;
}

export function FoldSearch({ plan, worked, take, onClose }: Props) {
  const { words } = useSaying();
  const { options } = useTrade();
  const taking = useMutation({
    mutationFn: (turns: Schemas["Turn"][]) =>
      got(api.POST("/api/turns", { body: { plan, turns } })),
    onSuccess: (made) => take?.(made),
  });
  const [wish, setWish] = useState<Schemas["Wish"]>("leaves");
  const [stopped, setStopped] = useState(false);
  const [state, setState] = useState(START);
  useEffect(() => {
    if (stopped) return;
    const given = new AbortController();
    setState(START);
    (async () => {
      for (let turns = 1; turns <= MOST_TURNS; turns++) {
        const found = await got(
          api.POST("/api/suggest", {
            body: { plan, search: { wish, turns } },
            signal: given.signal,
          }),
        );
        setState((was) => ({
          ...was,
          searched: was.searched + found.searched,
          wouldDo: was.wouldDo + found.would_do,
          best: [...was.best, ...found.suggestions].sort(better).slice(0, BESIDE),
          whyNone: found.why_none || was.whyNone,
          done: turns === MOST_TURNS,
        }));
      }
    })().catch((error) => {
      if (!given.signal.aborted) setState((was) => ({ ...was, error: sentence(error) }));
    });
    return () => given.abort();
  }, [plan, wish, stopped]);
  const going = !stopped && !state.done && !state.error;
  return (
    <Modal opened onClose={onClose} title="Other folds for this dough" size="1180px">
      <div className={classes.head}>
        <Choice
          label="What I want"
          tight
          value={wish}
          options={options<Schemas["Wish"]>("wish")}
          onChange={(w) => {
            setStopped(false);
            setWish(w);
          }}
        />
        <div className={classes.progress}>
          <Progress
            value={(100 * state.searched) / ALL}
            aria-label="Searched"
            color="var(--crust)"
          />
          <p role="status">
            {state.searched} of {ALL} sequences of up to {MOST_TURNS} folds looked at;{" "}
            {state.wouldDo} would do here.
          </p>
        </div>
        {going ? (
          <Button variant="default" onClick={() => setStopped(true)}>
            Stop
          </Button>
        ) : (
          stopped && (
            <Button variant="default" onClick={() => setStopped(false)}>
              Search again
            </Button>
          )
        )}
      </div>
      {state.error && (
        <div className="bar mind" role="alert">
          {state.error}
        </div>
      )}
      {state.done && state.best.length === 0 && (
        <div className="bar mind" role="status">
          None of them would do. {words(state.whyNone)}
        </div>
      )}
      <Comparison
        columns={[
          {
            key: "now",
            title: "As it is",
            turns: stepsOf(plan, "turn"),
            facts: worked.facts,
            says: "The plan on your screen.",
          },
          ...state.best.map((s) => ({
            key: s.turns.map((t) => t.fold).join(" "),
            title: `${s.turns.length} ${s.turns.length === 1 ? "turn" : "turns"}`,
            turns: s.turns,
            facts: s.facts,
            says: words(s.reason),
            action: take && (
              <Button
                variant="default"
                loading={taking.isPending}
                onClick={() => taking.mutate(s.turns)}
              >
                Take these folds
              </Button>
            ),
          })),
        ]}
      />
    </Modal>
  );
}
