/** A plan's steps and what is made at them, by what they do: typed by the core's own union. */
import type { Schemas } from "./client";

export type Plan = Schemas["Plan"];
export type Worked = Schemas["WorkedPlan"];
export type Stop = Schemas["Stop"];
export type Step = Plan["steps"][number];
export type Do = Step["do"];
export type StepOf<D extends Do> = Extract<Step, { do: D }>;
type Made = NonNullable<Stop["made"]>;
export type MadeOf<D extends Do> = Extract<Made, { do: D }>;

const does =
  <D extends string>(what: D) =>
  <T extends { do: string }>(it: T): it is Extract<T, { do: D }> =>
    it.do === what;

/** Every step of a kind, in order. */
export const stepsOf = <D extends Do>(plan: Plan, what: D): StepOf<D>[] =>
  plan.steps.filter(does(what)) as StepOf<D>[];

/** The first step of a kind. */
export const stepOf = <D extends Do>(plan: Plan, what: D): StepOf<D> | undefined =>
  stepsOf(plan, what)[0];

/** What is made at a stop, if the stop does this. */
export const madeAt = <D extends Do>(stop: Stop | undefined, what: D): MadeOf<D> | undefined =>
  stop?.made?.do === what ? (stop.made as MadeOf<D>) : undefined;

/** What is made at the first stop of a kind. */
export const made = <D extends Do>(worked: Worked, what: D): MadeOf<D> | undefined =>
  madeAt(stopOf(worked, what), what);

/** The first stop of a kind. */
export const stopOf = (worked: Worked, what: Do): Stop | undefined =>
  worked.strip.find((s) => s.do === what);

/** A name for a step that no other step of the plan has. */
export function freshId(plan: Plan, what: Do): string {
  const taken = new Set(plan.steps.map((s) => s.id));
  let n = plan.steps.filter((s) => s.do === what).length + 1;
  while (taken.has(`${what}-${n}`)) n += 1;
  return `${what}-${n}`;
}

/** The plan with one of its steps changed. */
export const withStep = (plan: Plan, n: number, part: object): Plan => ({
  ...plan,
  steps: plan.steps.map((s, i) => (i === n ? ({ ...s, ...part } as Step) : s)),
});

/** The plan with a step, like another or fresh, at `n`. */
export const withStepAt = (plan: Plan, n: number, like: Step): Plan => ({
  ...plan,
  steps: plan.steps.toSpliced(n, 0, { ...like, id: freshId(plan, like.do) }),
});

export const withoutStep = (plan: Plan, n: number): Plan => ({
  ...plan,
  steps: plan.steps.toSpliced(n, 1),
});

/** The plan with a step carried to another place. */
export function withStepMoved(plan: Plan, from: number, to: number): Plan {
  const step = plan.steps[from];
  if (!step) return plan;
  return { ...plan, steps: plan.steps.toSpliced(from, 1).toSpliced(to, 0, step) };
}
