/** A plan that is only read: fetched and worked, or why it is not there. */
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { useParams } from "react-router";
import { api, got } from "@/api/client";
import { useWorked } from "@/api/queries";
import type { Plan, Worked } from "@/api/steps";
import { Nothing, Waiting } from "@/app/states";

interface Props {
  children: (id: number, plan: Plan, worked: Worked) => ReactNode;
}

export function WithPlan({ children }: Props) {
  const id = Number(useParams().planId);
  const saved = useQuery({
    queryKey: ["plan", id],
    queryFn: () => got(api.GET("/api/plans/{plan_id}", { params: { path: { plan_id: id } } })),
  });
  if (saved.isPending) return <Waiting what="the plan" />;
  if (!saved.data) return <Nothing error={saved.error} retry={saved.refetch} />;
  return <Working plan={saved.data.plan}>{(plan, worked) => children(id, plan, worked)}</Working>;
}

function Working({
  plan,
  children,
}: {
  plan: Plan;
  children: (plan: Plan, worked: Worked) => ReactNode;
}) {
  const { data, isError, error } = useWorked(plan);
  if (data) return children(plan, data);
  return isError ? <Nothing error={error} /> : <Waiting what="the sheets" />;
}
