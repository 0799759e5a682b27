import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { useWorked } from "@/api/queries";
import { Nothing, Waiting } from "@/app/states";
import { useSaying } from "@/measures/likes";
import { SheetPages } from "./SheetPages";

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
  const { sheets, lock_in, butter } = worked.data;
  const block = `${Math.round(lock_in.block.width_mm)} × ${say("length", Math.round(lock_in.block.length_mm))}, ${say("length", lock_in.block.thickness_mm)} thick. ${words(butter.plaques.text)}`;
  return (
    <SheetPages
      title={plan.name}
      back={`/plans/${id}`}
      csv={`/api/plans/${id}/sheets.csv`}
      sheets={sheets.map((sheet) => ({
        name: plan.name,
        sheet,
        times: 1,
        at: null,
        makes: sheet.stop === "lock_in" ? block : undefined,
      }))}
    />
  );
}
