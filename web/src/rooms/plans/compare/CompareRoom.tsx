/** Two to four plans side by side; which ones stands in the address. */
import { Button, MultiSelect } from "@mantine/core";
import { useQueries } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { api, got } from "@/api/client";
import { usePlans } from "@/api/queries";
import { stepsOf } from "@/api/steps";
import { Nothing, Title, Waiting } from "@/app/states";
import { Comparison } from "./Comparison";

const MOST = 4;

export function CompareRoom() {
  const [query, setQuery] = useSearchParams();
  const plans = usePlans();
  const chosen = [...new Set((query.get("plans") ?? "").split(",").map(Number))]
    .filter((id) => id > 0)
    .slice(0, MOST);
  const opened = useQueries({
    queries: chosen.map((id) => ({
      queryKey: ["compared", id],
      queryFn: async () => {
        const { plan } = await got(
          api.GET("/api/plans/{plan_id}", { params: { path: { plan_id: id } } }),
        );
        return { id, plan, worked: await got(api.POST("/api/work", { body: plan })) };
      },
      staleTime: 0,
    })),
  });
  if (plans.isPending) return <Waiting what="the plans" />;
  if (!plans.data) return <Nothing error={plans.error} retry={plans.refetch} />;
  const failed = opened.find((q) => q.isError);
  const columns = opened.flatMap(({ data }) =>
    data
      ? {
          key: String(data.id),
          title: <Link to={`/plans/${data.id}`}>{data.plan.name}</Link>,
          turns: stepsOf(data.plan, "turn"),
          facts: data.worked.facts,
          worked: data.worked,
        }
      : [],
  );
  return (
    <>
      <div className="roomHead">
        <Title>Side by side</Title>
        <h1>Side by side</h1>
        <MultiSelect
          aria-label="Plans to compare"
          placeholder={chosen.length < MOST ? "Choose a plan" : undefined}
          w={{ base: "100%", sm: 620 }}
          maxValues={MOST}
          value={chosen.map(String)}
          data={plans.data.map((p) => ({ value: String(p.id), label: p.name }))}
          onChange={(ids) => setQuery({ plans: ids.join(",") }, { replace: true })}
        />
        <div className="actions">
          <Button variant="default" onClick={() => window.print()}>
            Print
          </Button>
        </div>
      </div>
      {failed ? (
        <Nothing error={failed.error ?? undefined} />
      ) : columns.length < 2 ? (
        <div className="empty">
          <h2>Choose two plans or more</h2>
          <p>
            Up to four stand beside each other. What differs is set large, with a bar to see by how
            much; what is equal is set small.
          </p>
        </div>
      ) : (
        <Comparison columns={columns} />
      )}
    </>
  );
}
