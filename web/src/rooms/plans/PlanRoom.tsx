import { type HotkeyItem, useHotkeys } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, Suspense, useState } from "react";
import { useOutletContext, useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { sentence, useKitchen } from "@/api/queries";
import { stopOf } from "@/api/steps";
import { Nothing, Title, Waiting } from "@/app/states";
import { TodayBar } from "@/cold/TodayBar";
import { GroundContext } from "@/drawings/hands";
import {
  FaultsContext,
  LightContext,
  LitContext,
  MindedContext,
  UnreadContext,
  useUnread,
} from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { useStartRun } from "@/offline/useStartRun";
import { kindOf } from "@/steps/kinds";
import { lazily } from "@/wire/lazily";
import { Advice } from "./Advice";
import { Board } from "./Board";
import { PlanHead } from "./PlanHead";
import classes from "./PlanRoom.module.css";
import { put } from "./paths";
import { StepRow } from "./StepRow";
import { StopPanel } from "./StopPanel";
import { type PlanDesk, panelOf, usePlanDesk } from "./usePlanDesk";

const FoldSearch = lazily(async () => (await import("./compare/FoldSearch")).FoldSearch);
const Keys = lazily(async () => (await import("./Keys")).Keys);

/** Fetches a plan and opens it. */
export function PlanRoom() {
  const id = Number(useParams().planId);
  const saved = useQuery({
    queryKey: ["plan", id],
    queryFn: () => got(api.GET("/api/plans/{plan_id}", { params: { path: { plan_id: id } } })),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  if (saved.isPending) return <Waiting what="the plan" />;
  if (!saved.data) return <Nothing error={saved.error} retry={saved.refetch} />;
  return <OpenPlan key={id} saved={saved.data} />;
}

function OpenPlan({ saved }: { saved: Schemas["SavedPlan"] }) {
  const me = useOutletContext<Schemas["Me"]>();
  const readOnly = me.role !== "head";
  const desk = usePlanDesk(saved, readOnly);
  const { plan, draft, worked, warmth, stop, change } = desk;
  const { unread, tell } = useUnread();
  const { words } = useSaying();
  const table = new Map(useKitchen().data?.table.map((d) => [d.key, d.value]));
  const start = useStartRun();
  const [keys, setKeys] = useState(false);
  const [searching, setSearching] = useState(false);
  useHotkeys(
    [
      unlessTyping("mod+Z", draft.undo),
      unlessTyping("mod+shift+Z", draft.redo),
      unlessTyping("mod+Y", draft.redo),
      unlessTyping("shift+?", () => setKeys(true)),
      unlessTyping("M", desk.nextToMind),
    ],
    [],
  );
  const panel = panelOf(desk, { readOnly, searchFolds: () => setSearching(true) });
  if (!worked || !stop) {
    return desk.failed ? (
      <Nothing error={desk.failed} retry={desk.retry} />
    ) : (
      <Waiting what="the sheets" />
    );
  }
  const bench = {
    length_mm: table.get("bench.length_mm") ?? 0,
    width_mm: table.get("bench.width_mm") ?? 0,
  };
  // What is wrong with the order of the steps has no field: it stands over the board.
  const misplaced = Object.entries(desk.faults)
    .filter(([path]) => /^steps(\[\d+\])?(\.do|\.id)?$/.test(path))
    .map(([, message]) => message);
  return (
    <Surroundings desk={desk} tell={tell}>
      <Title>{`${stop.name}, ${plan.name}`}</Title>
      <div className={classes.desk}>
        <Suspense>
          {searching && (
            <FoldSearch
              plan={plan}
              worked={worked}
              onClose={() => setSearching(false)}
              take={
                readOnly
                  ? undefined
                  : (next) => {
                      change(next, "steps");
                      setSearching(false);
                      desk.select(stopOf(worked, "turn")?.key ?? "");
                    }
              }
            />
          )}
          {keys && <Keys opened onClose={() => setKeys(false)} />}
        </Suspense>
        <PlanHead
          id={saved.id}
          desk={desk}
          readOnly={readOnly}
          unread={unread}
          starting={start.isPending}
          start={() => start.mutate({ plan_id: saved.id })}
          showKeys={() => setKeys(true)}
          searchFolds={() => setSearching(true)}
        />
        {start.isError && (
          <div className="bar mind" role="alert">
            {sentence(start.error)}
          </div>
        )}
        <StepRow desk={desk} readOnly={readOnly} />
        {misplaced.map((message) => (
          <div key={message} className="bar mind" role="alert">
            {words(message)}
          </div>
        ))}
        <TodayBar
          warmth={warmth}
          today={desk.climate.today}
          said={desk.climate.said}
          trying={desk.climate.trying}
          change={desk.climate.attempt}
          say={desk.climate.say}
          askWarmer={desk.askWarmer}
        />
        <div
          className={classes.board}
          data-scales={!kindOf(stop.do).views || undefined}
          role="tabpanel"
          aria-label={`${stop.name}: sheets and inputs`}
        >
          {panel && (
            <Board {...panel} planId={saved.id} bench={bench.length_mm ? bench : undefined} />
          )}
          <Advice
            plan={plan}
            worked={worked}
            warmth={warmth}
            stop={stop.key}
            stale={desk.stale}
            select={desk.select}
            take={
              readOnly
                ? undefined
                : (fix) =>
                    change(
                      fix.puts.reduce((now, p) => put(now, p.field, p.value), plan),
                      fix.label,
                    )
            }
          />
          {panel && <StopPanel {...panel} begins={desk.begins} />}
        </div>
      </div>
    </Surroundings>
  );
}

/** A key that is the writer's own in a field of text, and works everywhere else: on a choice too. */
const unlessTyping = (key: string, go: () => void): HotkeyItem => [
  key,
  (event) => {
    const { target } = event;
    const choice = target instanceof HTMLInputElement && /radio|checkbox/.test(target.type);
    if (!choice && target instanceof HTMLElement && target.matches("input, textarea, select"))
      return;
    event.preventDefault();
    go();
  },
  { preventDefault: false },
];

/** What the fields and the drawings of the desk know of the plan: its faults, and what is pointed at. */
function Surroundings({
  desk,
  tell,
  children,
}: {
  desk: PlanDesk;
  tell: (path: string, unread: boolean) => void;
  children: ReactNode;
}) {
  const [lit, light] = useState<readonly string[]>([]);
  return (
    <FaultsContext.Provider value={desk.faults}>
      <MindedContext.Provider value={desk.minded}>
        <UnreadContext.Provider value={tell}>
          <GroundContext.Provider value={desk.ground}>
            <LightContext.Provider value={light}>
              <LitContext.Provider value={lit}>{children}</LitContext.Provider>
            </LightContext.Provider>
          </GroundContext.Provider>
        </UnreadContext.Provider>
      </MindedContext.Provider>
    </FaultsContext.Provider>
  );
}
