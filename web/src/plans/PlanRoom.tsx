import { ActionIcon, Button, TextInput, Tooltip } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { IconArrowBackUp, IconArrowForwardUp, IconPlus } from "@tabler/icons-react";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useOutletContext, useParams, useSearchParams } from "react-router";
import { api, got, Problem, type Schemas } from "@/api/client";
import { queries, useKitchen, useWorked } from "@/api/queries";
import { Nothing, Waiting } from "@/app/states";
import { useStartRun } from "@/bench/useStartRun";
import { TodayBar } from "@/cold/TodayBar";
import { useToday, useWarmth } from "@/cold/useWarmth";
import { FoldSearch } from "@/compare/FoldSearch";
import { SavedWord } from "@/drafts/SavedWord";
import { useDraft } from "@/drafts/useDraft";
import { clockWords, Strip } from "@/drawings/Strip";
import { FaultsContext, MindedContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { Advice } from "./Advice";
import { Board } from "./Board";
import { FAMILIES } from "./families";
import { Keys } from "./Keys";
import { PlanMenu } from "./PlanMenu";
import classes from "./PlanRoom.module.css";
import { put } from "./paths";
import { StopPanel } from "./StopPanel";
import { addTurn } from "./turns";
import { useAmend } from "./useAmend";

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
  if (saved.isError) return <Nothing error={saved.error} retry={saved.refetch} />;
  return <OpenPlan key={id} saved={saved.data} />;
}

async function save(id: number, revision: number, plan: Schemas["Plan"]): Promise<number> {
  const answer = await got(
    api.PUT("/api/plans/{plan_id}", {
      params: { path: { plan_id: id } },
      body: { revision, plan },
      keepalive: true,
    }),
  );
  queries.setQueryData(["plan", id], answer);
  queries.invalidateQueries({ queryKey: ["plans"] });
  return answer.revision;
}

function OpenPlan({ saved }: { saved: Schemas["SavedPlan"] }) {
  const me = useOutletContext<Schemas["Me"]>();
  const readOnly = me.role !== "head";
  const draft = useDraft({
    key: `plan.${saved.id}`,
    saved: { ...saved, document: saved.plan },
    readOnly,
    put: (revision, plan) => save(saved.id, revision, plan),
  });
  const plan = draft.document;
  const amending = useAmend(plan, draft.change);
  const change = (next: Schemas["Plan"], path: string) => {
    amending.forget();
    draft.change(next, path);
  };
  const work = useWorked(plan);
  // An edit that cannot be worked may be the first thing a reload finds: show the sheets as saved.
  const asSaved = useWorked(saved.plan);
  const kitchen = useKitchen();
  const [today, setToday] = useToday();
  const [whatIf, setWhatIf] = useState(false);
  const warmth = useWarmth(plan, today, whatIf).data;
  const [query, setQuery] = useSearchParams();
  const start = useStartRun();
  const [keys, setKeys] = useState(false);
  const [searching, setSearching] = useState(false);
  useHotkeys([
    ["mod+Z", draft.undo],
    ["mod+shift+Z", draft.redo],
    ["mod+Y", draft.redo],
    ["shift+?", () => setKeys(true)],
  ]);
  const faults = useMemo(() => {
    const found = work.error instanceof Problem ? work.error.faults : [];
    return Object.fromEntries(found.map((f) => [f.field, f.message]));
  }, [work.error]);

  const worked = work.data ?? asSaved.data;
  const minded = useMemo(() => {
    const notes = worked?.notes.filter((n) => n.tone === "mind" && n.field) ?? [];
    return Object.fromEntries(notes.map((n) => [n.field ?? "", n.title]));
  }, [worked]);
  const stops = worked?.strip ?? [];
  const selected =
    stops.find((s) => s.key === query.get("step")) ?? stops.find((s) => s.kind === "lock_in");
  const select = (key: string) => setQuery({ step: key }, { replace: true });
  const table = new Map(kitchen.data?.table.map((d) => [d.key, d.value]));
  const bench = {
    length_mm: table.get("bench.length_mm") ?? 0,
    width_mm: table.get("bench.width_mm") ?? 0,
  };

  if (!worked || !selected) {
    return asSaved.isError ? (
      <Nothing error={asSaved.error} retry={asSaved.refetch} />
    ) : (
      <Waiting what="the sheets" />
    );
  }
  const panel = {
    stop: selected,
    plan,
    worked,
    warmth,
    readOnly,
    change,
    amend: amending.amend,
    select,
    searchFolds: () => setSearching(true),
  };
  return (
    <FaultsContext.Provider value={{ ...amending.faults, ...faults }}>
      <MindedContext.Provider value={minded}>
        {searching && (
          <FoldSearch
            plan={plan}
            worked={worked}
            onClose={() => setSearching(false)}
            take={
              readOnly
                ? undefined
                : (turns) => {
                    change({ ...plan, turns }, "turns");
                    setSearching(false);
                    select("turn-1");
                  }
            }
          />
        )}
        <Keys opened={keys} onClose={() => setKeys(false)} />
        <div className={classes.head}>
          <div className={classes.title}>
            <TextInput
              aria-label="Name of the plan"
              variant="unstyled"
              className={classes.name}
              value={plan.name}
              readOnly={readOnly}
              error={plan.name.trim() ? faults.name : "A plan wants a name."}
              onChange={(e) => draft.change({ ...plan, name: e.currentTarget.value }, "name")}
            />
            <p>
              <Summary plan={plan} worked={worked} />
              {" · "}
              <SavedWord saving={draft.saving} readOnly={readOnly} />
            </p>
          </div>
          <div className={classes.actions}>
            {!readOnly && (
              <>
                <Tooltip label="Undo (Ctrl Z)">
                  <ActionIcon
                    variant="default"
                    size={40}
                    aria-label="Undo"
                    disabled={!draft.canUndo}
                    onClick={draft.undo}
                  >
                    <IconArrowBackUp size={20} />
                  </ActionIcon>
                </Tooltip>
                <Tooltip label="Redo (Ctrl Shift Z)">
                  <ActionIcon
                    variant="default"
                    size={40}
                    aria-label="Redo"
                    disabled={!draft.canRedo}
                    onClick={draft.redo}
                  >
                    <IconArrowForwardUp size={20} />
                  </ActionIcon>
                </Tooltip>
              </>
            )}
            <PlanMenu
              id={saved.id}
              plan={plan}
              readOnly={readOnly}
              change={change}
              showKeys={() => setKeys(true)}
              searchFolds={() => setSearching(true)}
            />
            <Button
              size="md"
              h={40}
              loading={start.isPending}
              onClick={() => start.mutate(saved.id)}
            >
              Take it to the bench
            </Button>
          </div>
        </div>
        {draft.saving.state === "overtaken" && (
          <div className="bar mind" role="alert">
            <span>{draft.saving.why}</span>
            <Button variant="default" onClick={draft.drop}>
              Take the other version
            </Button>
          </div>
        )}
        {start.isError && (
          <div className="bar mind" role="alert">
            {start.error.message}
          </div>
        )}
        <div className={classes.stripRow}>
          <Strip
            plan={plan}
            worked={worked}
            selected={selected.key}
            onSelect={select}
            windows={warmth?.windows}
            under={
              warmth &&
              ((stop) => {
                const said = clockWords(warmth.clocks.find((c) => c.stop === stop.key));
                return <span data-off={said.off || undefined}>{said.text}</span>;
              })
            }
          />
          {!readOnly && plan.turns.length < 12 && (
            <Tooltip label="Add a turn after the last">
              <ActionIcon
                className={classes.add}
                variant="default"
                size={44}
                aria-label="Add a turn"
                onClick={() => {
                  draft.change(addTurn(plan, plan.turns.length), "turns");
                  select(`turn-${plan.turns.length + 1}`);
                }}
              >
                <IconPlus size={20} />
              </ActionIcon>
            </Tooltip>
          )}
        </div>
        <TodayBar
          warmth={warmth}
          today={today}
          change={setToday}
          askWarmer={() => setWhatIf(true)}
        />
        <div
          className={classes.board}
          data-scales={["mix", "preferment"].includes(selected.kind) || undefined}
          role="tabpanel"
          aria-label={`${selected.name}: sheets and inputs`}
        >
          <Board {...panel} planId={saved.id} bench={bench.length_mm ? bench : undefined} />
          <Advice
            worked={worked}
            warmth={warmth}
            stop={selected.key}
            stale={Object.keys(faults).length > 0}
            take={
              readOnly
                ? undefined
                : (fix) =>
                    change(
                      fix.puts.reduce((now, p) => put(now, p.field, p.value), plan),
                      `${fix.label}`,
                    )
            }
          />
          <StopPanel {...panel} />
        </div>
      </MindedContext.Provider>
    </FaultsContext.Provider>
  );
}

function Summary({ plan, worked }: { plan: Schemas["Plan"]; worked: Schemas["WorkedPlan"] }) {
  const { counted, say } = useSaying();
  const facts = [
    FAMILIES[plan.family],
    say("mass", worked.total_g),
    counted(worked.layers.butter, worked.layers.total),
    worked.cut && `${worked.cut.pieces} pieces`,
    span(worked.total_min),
  ];
  return <span className="quiet">{facts.filter(Boolean).join(" · ")}</span>;
}
