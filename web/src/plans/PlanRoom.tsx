import { ActionIcon, Button, Menu, TextInput, Tooltip } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { IconArrowBackUp, IconArrowForwardUp, IconDots, IconPlus } from "@tabler/icons-react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { useNavigate, useOutletContext, useParams, useSearchParams } from "react-router";
import { api, got, Problem, type Schemas } from "@/api/client";
import { queries, useKitchen, useWorked } from "@/api/queries";
import { Nothing, Waiting } from "@/app/states";
import { clock } from "@/app/time";
import { useStartRun } from "@/bench/useStartRun";
import { FromAbove } from "@/drawings/FromAbove";
import { FromSide } from "@/drawings/FromSide";
import { Strip } from "@/drawings/Strip";
import { aboveAt, sideAt } from "@/drawings/views";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { Advice } from "./Advice";
import { FAMILIES } from "./families";
import { Keys } from "./Keys";
import classes from "./PlanRoom.module.css";
import { StopPanel } from "./StopPanel";
import { addTurn } from "./turns";
import { type Saving, usePlanDraft } from "./usePlanDraft";

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

function OpenPlan({ saved }: { saved: Schemas["SavedPlan"] }) {
  const me = useOutletContext<Schemas["Me"]>();
  const readOnly = me.role !== "head";
  const draft = usePlanDraft(saved, readOnly);
  const { plan } = draft;
  const work = useWorked(plan);
  // An edit that cannot be worked may be the first thing a reload finds: show the sheets as saved.
  const asSaved = useWorked(saved.plan);
  const kitchen = useKitchen();
  const [query, setQuery] = useSearchParams();
  const go = useNavigate();
  const start = useStartRun();
  const [keys, setKeys] = useState(false);
  const copy = useMutation({
    mutationFn: () =>
      got(api.POST("/api/plans/{plan_id}/copy", { params: { path: { plan_id: saved.id } } })),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["plans"] });
      go(`/plans/${made.id}`);
    },
  });
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
  const stops = worked?.strip ?? [];
  const selected = stops.find((s) => s.key === query.get("step")) ?? stops[1] ?? stops[0];
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
  const above = aboveAt(selected, plan, worked);
  const side = sideAt(selected, worked);
  return (
    <FaultsContext.Provider value={faults}>
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
          <Menu position="bottom-end">
            <Menu.Target>
              <ActionIcon variant="default" size={40} aria-label="More for this plan">
                <IconDots size={20} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item component="a" href={`/api/plans/${saved.id}/file`} download>
                Download as a file
              </Menu.Item>
              {!readOnly && <Menu.Item onClick={() => copy.mutate()}>Make a copy</Menu.Item>}
              <Menu.Item onClick={() => window.print()}>Print</Menu.Item>
              <Menu.Item onClick={() => setKeys(true)}>Keys (?)</Menu.Item>
            </Menu.Dropdown>
          </Menu>
          <Button size="md" h={40} loading={start.isPending} onClick={() => start.mutate(saved.id)}>
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
        <Strip plan={plan} worked={worked} selected={selected.key} onSelect={select} />
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
      <div
        className={classes.board}
        role="tabpanel"
        aria-label={`${selected.name}: sheets and inputs`}
      >
        <section className={classes.above}>
          <h2>
            From above <small>{above.caption}</small>
          </h2>
          <FromAbove {...above} bench={above.onBench && bench.length_mm ? bench : undefined} />
        </section>
        <section className={classes.side}>
          <h2>
            From the side <small>{side.state}</small>
          </h2>
          <FromSide {...side} />
        </section>
        <Advice worked={worked} stop={selected.key} stale={Object.keys(faults).length > 0} />
        <StopPanel
          stop={selected}
          plan={plan}
          worked={worked}
          readOnly={readOnly}
          change={draft.change}
          select={select}
        />
      </div>
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

function SavedWord({ saving, readOnly }: { saving: Saving; readOnly: boolean }) {
  if (readOnly) return <span className="quiet">to read: a head baker changes it</span>;
  const word = {
    saved: () => (saving.state === "saved" ? `saved ${clock(saving.at)}` : ""),
    saving: () => "saving",
    waiting: () => (saving.state === "waiting" ? saving.why : ""),
    refused: () => (saving.state === "refused" ? saving.why : ""),
    overtaken: () => "not saved",
  }[saving.state]();
  return (
    <span
      className={
        saving.state === "saved" || saving.state === "saving" ? classes.saved : classes.unsaved
      }
      role="status"
    >
      {word}
    </span>
  );
}
