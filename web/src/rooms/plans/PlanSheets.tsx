import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { useWorked } from "@/api/queries";
import { madeAt, stopOf } from "@/api/steps";
import { Nothing, Waiting } from "@/app/states";
import { useSaying } from "@/measures/likes";
import { SheetPages } from "@/sheets/SheetPages";

/** The weigh-out sheets of one dough of a plan. */
export function PlanSheets() {
  const id = Number(useParams().planId);
  const saved = useQuery({
    queryKey: ["plan", id],
    queryFn: () => got(api.GET("/api/plans/{plan_id}", { params: { path: { plan_id: id } } })),
  });
  if (saved.isPending) return <Waiting what="the plan" />;
  if (saved.isError) return <Nothing error={saved.error} retry={saved.refetch} />;
  return <OfPlan id={id} plan={saved.data.plan} />;
}

function OfPlan({ id, plan }: { id: number; plan: Schemas["Plan"] }) {
  const worked = useWorked(plan);
  const { say, words } = useSaying();
  if (!worked.data) {
    return worked.isError ? <Nothing error={worked.error} /> : <Waiting what="the sheets" />;
  }
  const { sheets } = worked.data;
  const stop = stopOf(worked.data, "lock_in");
  const block = madeAt(stop, "lock_in")?.block;
  const blockWords =
    block &&
    `${Math.round(block.width_mm)} × ${say("length", Math.round(block.length_mm))}, ${say("length", block.thickness_mm)} thick. ${words(stop?.does.slice(1).join(" ") ?? "")}`;
  return (
    <SheetPages
      title={plan.name}
      back={`/plans/${id}`}
      shopping={worked.data.shopping}
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
