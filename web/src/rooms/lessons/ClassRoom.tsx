/** A class: everybody's best play of a lesson side by side, without names unless a head asks for them. */
import { Button, Checkbox } from "@mantine/core";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useOutletContext, useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { Nothing, Title, Waiting } from "@/app/states";
import { figure } from "@/measures/quantity";
import classes from "./ClassRoom.module.css";
import { NAMES, said } from "./GoalLines";
import { PieceDrawn } from "./PieceDrawn";
import { PlayStrip } from "./PlayStrip";
import { lessonQuery } from "./queries";

export function ClassRoom() {
  const { lessonKey = "" } = useParams();
  const me = useOutletContext<Schemas["Me"]>();
  const [named, setNamed] = useState(false);
  const lesson = useQuery(lessonQuery(lessonKey));
  const rows = useQuery({
    queryKey: ["lesson-class", lessonKey, named],
    queryFn: () =>
      got(
        api.GET("/api/lessons/{key}/class", {
          params: { path: { key: lessonKey }, query: { named } },
        }),
      ),
  });
  if (!rows.data && (rows.isPending || lesson.isPending)) return <Waiting what="the class" />;
  if (!rows.data || !lesson.data)
    return <Nothing error={rows.error ?? lesson.error} retry={rows.refetch} />;
  return (
    <>
      <Title>{`The class: ${lesson.data.line.name}`}</Title>
      <div className="roomHead">
        <h1>{lesson.data.line.name}</h1>
        <span className="quiet">the class side by side, each by their best play</span>
        <div className="actions">
          {me?.role === "head" && (
            <Checkbox
              size="md"
              label="With names"
              checked={named}
              onChange={(e) => setNamed(e.currentTarget.checked)}
            />
          )}
          <Button size="md" component={Link} to={`/lessons/${lessonKey}`}>
            To the lesson
          </Button>
        </div>
      </div>
      {rows.data.length === 0 && (
        <p>Nobody has played it yet. Whoever finishes it stands here, beside the others.</p>
      )}
      <ol className={classes.class}>
        {rows.data.map((row) => (
          <li key={row.who} data-mine={row.mine || undefined}>
            <h2>
              {row.who}
              {row.mine && <small> (you)</small>}
            </h2>
            <PieceDrawn name={row.passed ? "Passed" : "Not passed yet"} view={row.view} />
            <dl className={classes.short}>
              {(
                [
                  [NAMES.lift, said.lift(row.view.outcome.lift)],
                  [NAMES.openness_pct, said.openness_pct(row.view.outcome.openness_pct)],
                  [NAMES.fat_lost_pct, said.fat_lost_pct(row.view.outcome.fat_lost_pct)],
                  [NAMES.evenness_pct, said.evenness_pct(row.view.outcome.evenness_pct)],
                  ["Worth", figure("number", row.view.outcome.worth, "metric")],
                  ["Plays", String(row.plays)],
                ] as const
              ).map(([name, value]) => (
                <div key={name}>
                  <dt>{name}</dt>
                  <dd>{value}</dd>
                </div>
              ))}
            </dl>
            <PlayStrip mine={row.view.stretches} best={null} />
          </li>
        ))}
      </ol>
    </>
  );
}
