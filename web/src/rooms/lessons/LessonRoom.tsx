/** A lesson: what it is about, the simulated bench, and what came out. */
import { Button } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "@/api/client";
import { Nothing, Title, Waiting } from "@/app/states";
import { Notices, waitingOf } from "@/offline/Notices";
import { useOutbox } from "@/offline/outbox";
import { useLostSince } from "@/wire/connection";
import { GoalLines } from "./GoalLines";
import { OutcomeView } from "./OutcomeView";
import classes from "./Practice.module.css";
import { lessonQuery } from "./queries";
import { SimBench } from "./SimBench";
import { usePlay } from "./usePlay";

export function LessonRoom() {
  const { lessonKey = "" } = useParams();
  const lesson = useQuery(lessonQuery(lessonKey));
  const lostSince = useLostSince();
  const outbox = useOutbox();
  if (lesson.isPending)
    return (
      <Practice name="Lesson">
        <Waiting what="the lesson" />
      </Practice>
    );
  if (!lesson.data)
    return (
      <Practice name="Lesson">
        <Nothing error={lesson.error} retry={lesson.refetch} />
      </Practice>
    );
  return (
    <>
      <Notices waiting={waitingOf(outbox, lostSince)} lostSince={lostSince} />
      <Playing key={lessonKey} view={lesson.data} />
    </>
  );
}

/** What stands round everything of a lesson, so that nobody takes it for the real bench. */
export function Practice({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className={`night ${classes.page}`}>
      <p className={classes.practice} role="note">
        <b>Practice</b>
        <span>no dough, no butter, nothing written into the book</span>
      </p>
      <Title>{`${name}, a lesson`}</Title>
      {children}
    </div>
  );
}

function Playing({ view }: { view: Schemas["LessonView"] }) {
  const { line, lesson, bench } = view;
  const { play, setPlay, start, leave } = usePlay(line.key, bench.opens);
  if (play?.over)
    return (
      <Practice name={line.name}>
        <OutcomeView view={view} play={play} setPlay={setPlay} again={start} leave={leave} />
      </Practice>
    );
  if (play)
    return (
      <Practice name={line.name}>
        <SimBench view={view} play={play} setPlay={setPlay} leave={leave} />
      </Practice>
    );
  return (
    <Practice name={line.name}>
      <main className={classes.intro}>
        <Link to="/lessons" className={classes.backLink}>
          ‹ All lessons
        </Link>
        <h1>{line.name}</h1>
        {lesson.words && <p className={classes.lead}>{lesson.words}</p>}
        {line.source && <p className="quiet">Made from {line.source}.</p>}
        <h2>To be reached</h2>
        <GoalLines goal={lesson.goal ?? {}} />
        <p className="quiet">
          Time runs as fast as you let it, and you can go back to any decision. Afterwards you see
          what each one cost.
        </p>
        <div className={classes.actions}>
          <Button size="xl" onClick={start}>
            Begin
          </Button>
          <Button
            size="xl"
            variant="default"
            component="a"
            href={`/api/lessons/${encodeURIComponent(line.key)}/file`}
          >
            Save as a file
          </Button>
        </div>
      </main>
    </Practice>
  );
}
