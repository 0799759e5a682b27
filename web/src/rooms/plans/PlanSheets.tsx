import { madeAt, type Plan, stopOf, type Worked } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import { SheetPages } from "@/sheets/SheetPages";
import { WithPlan } from "./WithPlan";

/** The weigh-out sheets of one dough of a plan. */
export const PlanSheets = () => (
  <WithPlan>{(id, plan, worked) => <OfPlan {...{ id, plan, worked }} />}</WithPlan>
);

function OfPlan({ id, plan, worked }: { id: number; plan: Plan; worked: Worked }) {
  const { say, words } = useSaying();
  const { sheets } = worked;
  const stop = stopOf(worked, "lock_in");
  const block = madeAt(stop, "lock_in")?.block;
  const blockWords =
    block &&
    `${Math.round(block.width_mm)} × ${say("length", Math.round(block.length_mm))}, ${say("length", block.thickness_mm)} thick. ${words(stop?.does.slice(1).join(" ") ?? "")}`;
  return (
    <SheetPages
      title={plan.name}
      back={`/plans/${id}`}
      shopping={worked.shopping}
      shoppingSays={worked.shopping_says}
      csv={`/api/plans/${id}/sheets.csv`}
      sheets={sheets.map((sheet) => ({
        name: plan.name,
        sheet,
        times: 1,
        at: null,
        makes: sheet.stop === stop?.key ? blockWords : undefined,
      }))}
    />
  );
}
