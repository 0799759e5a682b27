/** A plan that is open: its draft, its sheets, its warmth today, and which stop is chosen. */
import { useMemo, useState } from "react";
import { useSearchParams } from "react-router";
import { api, byField, got, type Schemas } from "@/api/client";
import { queries, useWorked } from "@/api/queries";
import { madeAt, type Plan, withStep } from "@/api/steps";
import { useToday, useWarmth } from "@/cold/useWarmth";
import { useAmend } from "@/drafts/useAmend";
import { useDraft } from "@/drafts/useDraft";
import type { PanelProps } from "@/steps/parts/props";
import { useBegins } from "./clockTimes";

async function save(id: number, revision: number, plan: Plan): Promise<number> {
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

export function usePlanDesk(saved: Schemas["SavedPlan"], readOnly: boolean) {
  const draft = useDraft({
    key: `plan.${saved.id}`,
    saved: { ...saved, document: saved.plan },
    readOnly,
    put: (revision, plan) => save(saved.id, revision, plan),
  });
  const plan = draft.document;
  const amending = useAmend(plan, draft.change, (plan, amendment: Schemas["Amendment"]) =>
    got(api.POST("/api/amend", { body: { plan, amendment } })),
  );
  const change = (next: Plan, path: string) => {
    amending.forget();
    draft.change(next, path);
  };
  const work = useWorked(plan);
  // An edit that cannot be worked may be the first thing a reload finds: show the sheets as saved.
  const asSaved = useWorked(saved.plan);
  const climate = useToday();
  const [whatIf, setWhatIf] = useState(false);
  const warmth = useWarmth(plan, climate.today, whatIf).data;
  const [query, setQuery] = useSearchParams();
  const [begins] = useBegins(saved.id);
  const faults = useMemo(() => byField(work.error), [work.error]);
  const worked = work.data ?? asSaved.data;
  const minded = useMemo(
    () =>
      Object.fromEntries(
        (worked?.notes ?? [])
          .filter((n) => n.tone === "mind" && n.field)
          .map((n) => [n.field ?? "", n.title]),
      ),
    [worked],
  );
  // How much there is to mind at each step: the strip counts it.
  const minding = useMemo(() => {
    const many = new Map<string, number>();
    for (const note of [...(warmth?.notes ?? []), ...(worked?.notes ?? [])]) {
      if (note.tone === "mind") many.set(note.stop, (many.get(note.stop) ?? 0) + 1);
    }
    return many;
  }, [warmth, worked]);
  const { take, letGo } = draft;
  const busy = work.isFetching;
  const wrong = Object.values(faults)[0];
  const ground = useMemo(() => ({ take, letGo, busy, wrong }), [take, letGo, busy, wrong]);
  const stops = worked?.strip ?? [];
  const stop =
    stops.find((s) => s.key === query.get("step")) ??
    stops.find((s) => s.do === "lock_in") ??
    stops[0];
  // The way back goes to the step before.
  const select = (key: string) => setQuery({ step: key }, { replace: key === stop?.key });
  return {
    plan,
    draft,
    change,
    amend: amending.amend,
    ground,
    worked,
    failed: asSaved.error,
    retry: asSaved.refetch,
    warmth,
    /** When it begins, where somebody said so. */
    begins,
    climate,
    askWarmer: () => setWhatIf(true),
    /** What is wrong with the plan, by path; and with what was asked for last. */
    faults: { ...amending.faults, ...faults },
    stale: Object.keys(faults).length > 0,
    minded,
    minding,
    stop,
    select,
    /** On to the next step that needs minding, round the strip. */
    nextToMind: () => {
      const at = stops.findIndex((s) => s.key === stop?.key);
      const round = [...stops.slice(at + 1), ...stops.slice(0, at + 1)];
      const next = round.find((s) => minding.has(s.key));
      if (next) select(next.key);
    },
  };
}

export type PlanDesk = ReturnType<typeof usePlanDesk>;

/** What the panel of the chosen stop is given; none while its step is not there. */
export function panelOf(
  desk: PlanDesk,
  rest: { readOnly: boolean; searchFolds: () => void },
): PanelProps | null {
  const { stop, plan, worked, warmth, change, amend, select } = desk;
  // By name: while an edit waits for its sheets, the steps may have moved under the strip.
  const n = plan.steps.findIndex((s) => s.id === stop?.key);
  const step = plan.steps[n];
  if (!stop || !worked || !step) return null;
  const at = `steps[${n}]`;
  return {
    stop: { ...stop, n },
    plan,
    worked,
    warmth,
    change,
    amend,
    select,
    ...rest,
    step,
    made: madeAt(stop, step.do),
    at,
    set: (part, name) => change(withStep(plan, n, part), `${at}.${name}`),
  };
}
