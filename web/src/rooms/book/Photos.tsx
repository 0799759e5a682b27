/** Pictures of what came out, kept with the record: made smaller there, and without their metadata. */
import { Button, FileButton, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "@/api/client";
import { type RunView, showRun } from "@/api/runs";
import { clock } from "@/app/time";
import { put, useOutbox } from "@/offline/outbox";
import { newId } from "@/wire/id";
import { CrumbOf } from "./CrumbOf";
import classes from "./Photos.module.css";

export function Photos({ run }: { run: RunView }) {
  const [words, setWords] = useState("");
  const path = { run_id: run.id };
  const waiting = useOutbox().filter((e) => e.run === run.id && e.what === "picture");
  const add = useMutation({
    mutationFn: (file: File) => {
      const id = newId();
      return put(run.id, { what: "picture", body: { id, words, file } }, id);
    },
    onSuccess: () => setWords(""),
  });
  const drop = useMutation({
    mutationFn: (photo_id: string) =>
      got(
        api.DELETE("/api/runs/{run_id}/photos/{photo_id}", {
          params: { path: { ...path, photo_id } },
        }),
      ),
    onSuccess: showRun,
  });
  return (
    <section aria-label="Pictures">
      <h2>Pictures</h2>
      <ul className={classes.photos}>
        {run.photos.map((p) => (
          <li key={p.id}>
            <a href={`/api/photos/${p.id}.jpg`}>
              <img src={`/api/photos/${p.id}.jpg`} alt={p.words || "What came out"} />
            </a>
            <span>
              {p.words} <span className="quiet">{clock(p.taken_at)}</span>
            </span>
            <CrumbOf run={run.id} photo={p.id} />
            <Button
              variant="default"
              size="xs"
              aria-label={`Take away the picture ${p.words}`}
              onClick={() => drop.mutate(p.id)}
            >
              Take away
            </Button>
          </li>
        ))}
      </ul>
      {waiting
        .filter((e) => !e.aside)
        .map((e) => (
          <p key={e.id} role="status">
            A picture{e.what === "picture" && e.body.words ? `, “${e.body.words}”,` : ""} waits here
            and will be sent.
          </p>
        ))}
      <div className={classes.add}>
        <TextInput
          label="To the picture"
          placeholder="cut across, tray 2"
          maxLength={200}
          value={words}
          onChange={(e) => setWords(e.currentTarget.value)}
        />
        <FileButton accept="image/jpeg,image/png,image/webp" onChange={(f) => f && add.mutate(f)}>
          {(props) => (
            <Button variant="default" loading={add.isPending} {...props}>
              Add a picture
            </Button>
          )}
        </FileButton>
      </div>
    </section>
  );
}
