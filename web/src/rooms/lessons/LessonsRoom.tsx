/** Lessons: those that ship, those of this house, and how one sees a dough inside. */
import { Button, FileButton, Modal } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useOutletContext } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { Nothing, Title, Waiting } from "@/app/states";
import { figure } from "@/measures/quantity";
import classes from "./LessonsRoom.module.css";
import { MadeFrom } from "./MadeFrom";
import { lessonQuery, lessonsQuery, morningsQuery } from "./queries";

const AT_HAND_MS = 12 * 3_600_000;

export function LessonsRoom() {
  const lessons = useQuery(lessonsQuery);
  const me = useOutletContext<Schemas["Me"]>();
  const [making, make] = useState(false);
  const queries = useQueryClient();
  const go = useNavigate();
  useAtHand(lessons.data);
  const given = useMutation({
    mutationFn: async (file: File) => {
      let body: Schemas["Lesson"];
      try {
        body = JSON.parse(await file.text());
      } catch {
        throw new Error(`${file.name} is no lesson: it is not JSON.`);
      }
      return got(api.POST("/api/lessons", { body }));
    },
    onSuccess: (line) => {
      queries.invalidateQueries({ queryKey: ["lessons"] });
      go(`/lessons/${line.key}`);
    },
  });
  if (lessons.isPending) return <Waiting what="the lessons" />;
  if (!lessons.data) return <Nothing error={lessons.error} retry={lessons.refetch} />;
  const own = lessons.data.filter((l) => !l.ships);
  return (
    <>
      <Title>Lessons</Title>
      <div className="roomHead">
        <h1>Lessons</h1>
        <span className="quiet">a bench without butter: nothing here is written into the book</span>
        <div className="actions">
          <Button variant="default" size="md" component={Link} to="/lessons/inside">
            See inside a fold
          </Button>
          {me?.role === "head" && (
            <>
              <FileButton
                accept="application/json,.json"
                onChange={(file) => file && given.mutate(file)}
              >
                {(props) => (
                  <Button {...props} variant="default" size="md" loading={given.isPending}>
                    Open a lesson file
                  </Button>
                )}
              </FileButton>
              <Button size="md" onClick={() => make(true)}>
                Make a lesson
              </Button>
            </>
          )}
        </div>
      </div>
      {given.error && (
        <p className="bar mind" role="alert">
          {sentence(given.error)}
        </p>
      )}
      <ol className={classes.list}>
        {lessons.data
          .filter((l) => l.ships)
          .map((line, n) => (
            <LessonRow key={line.key} line={line} number={n + 1} />
          ))}
      </ol>
      <Mornings />
      {own.length > 0 && (
        <>
          <h2 className={classes.own}>Of this house</h2>
          <ol className={classes.list}>
            {own.map((line) => (
              <LessonRow key={line.key} line={line} />
            ))}
          </ol>
        </>
      )}
      <Modal opened={making} onClose={() => make(false)} title="Make a lesson" size={620}>
        <MadeFrom
          done={(key) => {
            make(false);
            go(`/lessons/${key}`);
          }}
        />
      </Modal>
    </>
  );
}

/** A day to try: several doughs at once. */
function Mornings() {
  const mornings = useQuery(morningsQuery);
  return (
    <ol className={classes.list} aria-label="Mornings to try">
      {mornings.data?.map((line) => (
        <li key={line.key} className={classes.row}>
          <span className={classes.number} aria-hidden="true">
            ☼
          </span>
          <div className={classes.what}>
            <Link to={`/lessons/morning/${line.key}`}>{line.name}</Link>
            <p>{line.words}</p>
          </div>
        </li>
      ))}
    </ol>
  );
}

/** Whoever stands before the lessons has them all at hand, also where there is no connection later. */
function useAtHand(lines: Schemas["LessonLine"][] | undefined) {
  const queries = useQueryClient();
  useEffect(() => {
    let gone = false;
    void (async () => {
      for (const { key } of lines ?? []) {
        if (gone) return;
        await queries.prefetchQuery({ ...lessonQuery(key), staleTime: AT_HAND_MS });
      }
    })();
    return () => {
      gone = true;
    };
  }, [lines, queries]);
}

function LessonRow({ line, number }: { line: Schemas["LessonLine"]; number?: number }) {
  return (
    <li className={classes.row}>
      <span className={classes.number} aria-hidden="true">
        {number ?? "·"}
      </span>
      <div className={classes.what}>
        <Link to={`/lessons/${line.key}`}>{line.name}</Link>
        <p>{line.words || (line.source && `Made from ${line.source}.`)}</p>
      </div>
      <span className={classes.mine}>
        {line.plays === 0 ? (
          <span className="quiet">not played yet</span>
        ) : (
          <>
            <b>{line.passed ? "passed" : "not passed yet"}</b>
            <span className="quiet">
              {line.plays === 1 ? "played once" : `played ${line.plays} times`}
              {line.best !== null && `, best ${figure("number", line.best, "metric")}`}
            </span>
          </>
        )}
      </span>
      <Button variant="default" component={Link} to={`/lessons/${line.key}/class`}>
        The class
      </Button>
    </li>
  );
}
