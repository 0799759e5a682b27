import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useDebouncedValue } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "@/api/client";
import { people, useBook } from "@/api/queries";
import { numbered } from "@/api/runs";
import { useTrade } from "@/api/trade";
import { Nothing, Title, Waiting } from "@/app/states";
import { day } from "@/app/time";
import classes from "./Book.module.css";
import { SCALES } from "./words";

const PHASES: Record<Schemas["Phase"], string> = {
  work: "under way",
  rest: "under way",
  finished: "finished",
  given_up: "stopped",
};

/** Every dough that was run, latest first. */
export function BookList() {
  const [words, setWords] = useState("");
  const [family, setFamily] = useState("");
  const [by, setBy] = useState("");
  const [good, setGood] = useState("");
  const [sought] = useDebouncedValue(words, 250);
  const runs = useBook({
    ...(sought.trim() && { words: sought }),
    ...(family && { family: family as Schemas["Family"] }),
    ...(by && { by }),
    ...(good && { good: good === "good" }),
  });
  const everybody = useQuery(people).data ?? [];
  const looking = Boolean(sought.trim() || family || by || good);
  const { said, options } = useTrade();
  return (
    <>
      <div className="roomHead">
        <Title>Book</Title>
        <h1>Book</h1>
        <div className="actions">
          <Button variant="default" size="md" component={Link} to="/book/trends">
            Over the months
          </Button>
          <Button variant="default" size="md" component="a" href="/api/book.jsonl">
            Save all of it
          </Button>
        </div>
      </div>
      <search className={classes.sought}>
        <TextInput
          label="Words"
          placeholder="a product, a remark"
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
        <NativeSelect
          label="Family"
          value={family}
          onChange={(e) => setFamily(e.currentTarget.value)}
          data={[{ value: "", label: "Any" }, ...options("family")]}
        />
        <NativeSelect
          label="Begun by"
          value={by}
          onChange={(e) => setBy(e.currentTarget.value)}
          data={[
            { value: "", label: "Anybody" },
            ...everybody.map((p) => ({ value: p.username, label: p.username })),
          ]}
        />
        <NativeSelect
          label="How it came out"
          value={good}
          onChange={(e) => setGood(e.currentTarget.value)}
          data={[
            { value: "", label: "However" },
            { value: "good", label: "Good" },
            { value: "other", label: "Not so good" },
          ]}
        />
      </search>
      {runs.isPending && <Waiting what="the records" />}
      {runs.isError && <Nothing error={runs.error} retry={runs.refetch} />}
      {runs.data?.pages[0]?.runs.length === 0 && (
        <div className="empty">
          <h2>{looking ? "No record is like that" : "Nothing in the book yet"}</h2>
          <p>
            {looking
              ? "Look for fewer words, or for anybody’s."
              : "Each dough taken to the bench writes its own page here."}
          </p>
        </div>
      )}
      <ul className="ruled">
        {runs.data?.pages
          .flatMap((page) => page.runs)
          .map((run) => (
            <li key={run.id}>
              <Link to={`/book/${run.id}`} className={classes.line}>
                <span>
                  <b>{numbered(run)}</b>
                  <small className="quiet">
                    {said("family", run.family)} · {day(run.started_at)}
                    {run.started_by && ` · ${run.started_by}`}
                  </small>
                </span>
                <span>
                  {PHASES[run.phase]}
                  <small className="quiet">
                    {run.turns_done} of {run.turns} turns
                  </small>
                </span>
                <span className={classes.scores}>
                  {run.verdict ? (
                    SCALES.map(([key, word]) => {
                      const score = run.verdict?.[key];
                      return score ? (
                        <span key={key}>
                          {word} <b>{score}</b>
                        </span>
                      ) : null;
                    })
                  ) : (
                    <span className="quiet">
                      {run.phase === "finished" ? "not judged yet" : ""}
                    </span>
                  )}
                  {run.verdict?.words && <small className="quiet">{run.verdict.words}</small>}
                </span>
              </Link>
            </li>
          ))}
      </ul>
      {runs.hasNextPage && (
        <Button
          variant="default"
          loading={runs.isFetchingNextPage}
          onClick={() => runs.fetchNextPage()}
        >
          Older doughs
        </Button>
      )}
    </>
  );
}
