import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { type ReactNode, useRef, useState } from "react";
import { useOutletContext, useSearchParams } from "react-router";
import { api, byField, got, type Schemas, sendFile } from "@/api/client";
import { queries, sentence, useKitchen } from "@/api/queries";
import { Nothing, Title, Waiting } from "@/app/states";
import { Earlier } from "@/drafts/Earlier";
import { FaultsContext } from "@/measures/faults";
import { Dial } from "./Dial";
import { Ingredients } from "./Ingredients";
import classes from "./KitchenRoom.module.css";
import { LearnPlace } from "./LearnPlace";
import { Network } from "./Network";
import { OwnCards } from "./OwnCards";
import { Preparations } from "./Preparations";
import { RoomPlan } from "./RoomPlan";
import { SignForm } from "./SignForm";
import { Values } from "./Values";

/** The table of practice: every starting value, where it comes from, and yours in its place. */
export function KitchenRoom({ people }: { people?: ReactNode }) {
  const me = useOutletContext<Schemas["Me"]>();
  const kitchen = useKitchen();
  const [earlier, setEarlier] = useState(false);
  const sought = useSearchParams()[0].get("find");
  const show = (view: Schemas["KitchenView"]) => {
    queries.setQueryData(["kitchen"], view);
    queries.removeQueries({ queryKey: ["work"] });
    queries.invalidateQueries({ queryKey: ["warmth"] });
  };
  const change = useMutation({
    mutationFn: (body: Schemas["SaveKitchen"]) => got(api.PUT("/api/kitchen", { body })),
    onSuccess: show,
  });
  /** Another kitchen in place of this one: what was refused of this one goes with it. */
  const instead = (view: Schemas["KitchenView"]) => {
    change.reset();
    show(view);
  };
  const file = useRef<HTMLInputElement>(null);
  const fromFile = useMutation({
    mutationFn: (chosen: File) => sendFile<Schemas["KitchenView"]>("/api/kitchen/file", chosen),
    onSuccess: instead,
  });
  const fromTable = useMutation({
    mutationFn: (chosen: File) =>
      sendFile<Schemas["KitchenView"]>("/api/kitchen/preparations/csv", chosen),
    onSuccess: instead,
  });
  if (kitchen.isPending) return <Waiting what="the kitchen" />;
  // what is there stays when the house is not to be reached for a while
  if (!kitchen.data) return <Nothing error={kitchen.error} retry={kitchen.refetch} />;
  const { table, ingredients, library, cards, room, preparations, prepared, sign, dial } =
    kitchen.data;
  const faults = byField(change.error);
  const refused = Object.keys(faults).length > 0;
  // What is on its way, or was refused, stays where it was typed; what found nobody to take it goes out
  // with the next change.
  const tried = change.isIdle || change.isSuccess ? {} : change.variables.yours;
  const shown = table.map((r) => ({ ...r, value: tried[r.key] ?? r.value }));
  const untaken = change.isError && !refused;
  const base = untaken
    ? change.variables
    : { yours: kitchen.data.yours, ingredients, revision: kitchen.data.revision };
  const { yours } = base;
  const send = (body: Partial<Schemas["SaveKitchen"]>) => change.mutate({ ...base, ...body });
  const set = (key: string, value: number) => send({ yours: { ...yours, [key]: value } });
  const reset = (key: string) => {
    const { [key]: _, ...rest } = yours;
    send({ yours: rest });
  };
  return (
    <FaultsContext.Provider value={faults}>
      <div className="roomHead">
        <Title>Kitchen</Title>
        <h1>Kitchen</h1>
        <span className="quiet">
          What every plan starts from. Change what is different here; plans follow at once.
        </span>
        <div className="actions">
          <Button component="a" href="/api/kitchen/file" download variant="default" size="md">
            As a file
          </Button>
          {me.role === "head" && (
            <>
              <input
                ref={file}
                type="file"
                accept="application/json"
                hidden
                aria-label="A kitchen file"
                onChange={(e) => {
                  const [chosen] = e.currentTarget.files ?? [];
                  if (chosen) fromFile.mutate(chosen);
                  e.currentTarget.value = "";
                }}
              />
              <Button variant="default" size="md" onClick={() => file.current?.click()}>
                From a file
              </Button>
            </>
          )}
          <Button variant="default" size="md" onClick={() => setEarlier(true)}>
            Earlier versions
          </Button>
        </div>
        <Earlier
          opened={earlier}
          close={() => setEarlier(false)}
          documentKey={["kitchen"]}
          name="the kitchen"
          readOnly={me.role !== "head"}
          list={() => got(api.GET("/api/kitchen/versions"))}
          take={async (revision) => {
            const path = { revision };
            instead(
              await got(api.POST("/api/kitchen/versions/{revision}/restore", { params: { path } })),
            );
          }}
        />
      </div>
      {(fromFile.error ?? fromTable.error) && (
        <div className="bar mind" role="alert">
          {sentence(fromFile.error ?? fromTable.error)}
        </div>
      )}
      {untaken && (
        <div className="bar mind" role="alert">
          <span>{sentence(change.error)}</span>
          <Button variant="default" onClick={() => change.mutate(change.variables)}>
            Send it again
          </Button>
        </div>
      )}
      {!sought && (
        <RoomPlan
          room={room}
          table={shown}
          yours={yours}
          readOnly={me.role !== "head"}
          keep={(next) => send({ yours: next })}
          place={(spots) => send({ spots })}
          butters={{
            own: ingredients,
            library,
            keys: kitchen.data.butters,
            usual: kitchen.data.usual,
            keep: (next) => send({ ingredients: next }),
          }}
        />
      )}
      <Values table={shown} readOnly={me.role !== "head"} set={set} reset={reset} />
      {!sought && (
        <>
          <div className={classes.groups}>
            {me.role === "head" && (
              <Ingredients
                own={ingredients}
                library={library}
                keep={(next) => send({ ingredients: next })}
              />
            )}
            {me.role === "head" && (
              <Preparations
                own={preparations}
                prepared={prepared}
                keep={(next) => send({ preparations: next })}
                fromTable={(chosen) => fromTable.mutate(chosen)}
              />
            )}
            {me.role === "head" && <OwnCards own={cards} keep={(next) => send({ cards: next })} />}
            {me.role === "head" && <Dial dial={dial} keep={(next) => send({ dial: next })} />}
            {me.role === "head" && <SignForm sign={sign} keep={(next) => send({ sign: next })} />}
          </div>
          <LearnPlace head={me.role === "head"} />
          <Network />
          {me.role === "head" && people}
        </>
      )}
    </FaultsContext.Provider>
  );
}
