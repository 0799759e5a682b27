/** A block by what stands on its tag: its mark typed, or its code before the camera. */
import { Button, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, got } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { blockQuery, storeQuery } from "@/blocks/blocks";
import { blockOf, watch, whatCannotBeSeen } from "./camera";
import classes from "./Store.module.css";

export function FindTag({ found }: { found: (id: string) => void }) {
  const [mark, setMark] = useState("");
  const find = useMutation({
    mutationFn: async (typed: string) => {
      const wanted = typed.trim().toUpperCase();
      // what lies on the shelves is known without asking
      const here = queries.getQueryData(storeQuery.queryKey)?.blocks.find((b) => b.mark === wanted);
      if (here) return here.id;
      const view = await got(
        api.GET("/api/blocks/mark/{mark}", { params: { path: { mark: wanted } } }),
      );
      queries.setQueryData(blockQuery(view.id).queryKey, view);
      return view.id;
    },
    onSuccess: found,
  });
  return (
    <div className={classes.asked}>
      <form
        className={classes.find}
        onSubmit={(e) => {
          e.preventDefault();
          if (mark.trim()) find.mutate(mark);
        }}
      >
        <TextInput
          label="What stands on the tag"
          placeholder="C1"
          size="lg"
          data-autofocus
          autoCapitalize="characters"
          autoComplete="off"
          maxLength={8}
          value={mark}
          onChange={(e) => setMark(e.currentTarget.value)}
          error={find.isError ? sentence(find.error) : undefined}
        />
        <Button type="submit" size="lg" loading={find.isPending} disabled={!mark.trim()}>
          Open it
        </Button>
      </form>
      <Camera found={found} />
    </div>
  );
}

function Camera({ found }: { found: (id: string) => void }) {
  const missing = whatCannotBeSeen();
  const [on, turn] = useState(false);
  const [says, say] = useState<string | null>(null);
  const video = useRef<HTMLVideoElement>(null);
  const give = useRef(found);
  give.current = found;
  useEffect(() => {
    const screen = video.current;
    if (!on || !screen) return;
    return watch(screen, {
      read: (text) => {
        const id = blockOf(text);
        if (id) give.current(id);
        else say("This code is not a tag of a cold store.");
      },
      failed: say,
    });
  }, [on]);
  if (missing) return <p className="quiet">{missing}</p>;
  return (
    <>
      {!on && (
        <Button size="lg" variant="default" onClick={() => turn(true)}>
          Read its code with the camera
        </Button>
      )}
      {on && <video ref={video} className={classes.camera} muted playsInline aria-label="Camera" />}
      {says && (
        <p role="alert" className={classes.mind}>
          {says}
        </p>
      )}
    </>
  );
}
