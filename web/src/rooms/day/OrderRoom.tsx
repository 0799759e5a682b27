import { ActionIcon, Button, NativeSelect, TextInput } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { IconArrowBackUp, IconArrowForwardUp } from "@tabler/icons-react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { Link, useNavigate, useOutletContext, useParams, useSearchParams } from "react-router";
import { api, byField, got, type Schemas } from "@/api/client";
import { queries, usePlans } from "@/api/queries";
import { Nothing, Title, Waiting } from "@/app/states";
import { Earlier } from "@/drafts/Earlier";
import { SavedWord } from "@/drafts/SavedWord";
import { useAmend } from "@/drafts/useAmend";
import { useDraft } from "@/drafts/useDraft";
import { FaultsContext } from "@/measures/faults";
import { MomentInput } from "@/measures/MomentInput";
import { timed } from "@/threads/threads";
import { BatchView } from "./BatchView";
import classes from "./Day.module.css";
import { DayPlan } from "./DayPlan";
import { DoughOrder } from "./DoughOrder";
import { HandsEditor } from "./HandsEditor";
import { Standing } from "./Standing";
import { useArranged } from "./useArranged";
import { wantedOf } from "./wanted";

type Order = Schemas["Order"];

const VIEWS = [
  ["orders", "Orders and hands"],
  ["timetable", "Timetable"],
] as const;

export function OrderRoom() {
  const id = Number(useParams().orderId);
  const saved = useQuery({
    queryKey: ["order", id],
    queryFn: () => got(api.GET("/api/orders/{order_id}", { params: { path: { order_id: id } } })),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false,
  });
  if (saved.isPending) return <Waiting what="the order" />;
  if (!saved.data) return <Nothing error={saved.error} retry={saved.refetch} />;
  return <OpenOrder key={id} saved={saved.data} />;
}

async function save(id: number, revision: number, order: Order): Promise<number> {
  const answer = await got(
    api.PUT("/api/orders/{order_id}", {
      params: { path: { order_id: id } },
      body: { revision, order },
      keepalive: true,
    }),
  );
  queries.setQueryData(["order", id], answer);
  queries.invalidateQueries({ queryKey: ["orders"] });
  // whether it asks for another timetable, the bakehouse knows
  queries.invalidateQueries({ queryKey: ["timetable", id] });
  return answer.revision;
}

/** An order worked; while a field is at fault the last answer stays. */
export function useWorkedOrder(order: Order) {
  const work = useQuery({
    queryKey: ["order-work", order],
    queryFn: () => got(api.POST("/api/order/work", { body: order })),
    staleTime: 30_000,
  });
  const last = useRef(work.data);
  if (work.data) last.current = work.data;
  return { ...work, data: last.current };
}

function OpenOrder({ saved }: { saved: Schemas["SavedOrder"] }) {
  const me = useOutletContext<Schemas["Me"]>();
  const readOnly = me.role !== "head";
  const go = useNavigate();
  const plans = usePlans();
  const draft = useDraft({
    key: `order.${saved.id}`,
    saved: { ...saved, document: saved.order },
    readOnly,
    put: (revision, order) => save(saved.id, revision, order),
  });
  const order = draft.document;
  const [earlier, setEarlier] = useState(false);
  const [query, setQuery] = useSearchParams();
  const view = query.get("view") === "timetable" ? "timetable" : "orders";
  const arranged = useArranged(
    saved.id,
    JSON.stringify(order),
    !readOnly && view === "timetable" && Boolean(order.hands?.length),
    draft.saving.state === "saved",
  );
  const work = useWorkedOrder(order);
  const copy = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/orders/{order_id}/copy", {
          params: { path: { order_id: saved.id } },
          body: { days: 7 },
        }),
      ),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["orders"] });
      go(`/day/${made.id}`);
    },
  });
  useHotkeys([
    ["mod+Z", draft.undo],
    ["mod+shift+Z", draft.redo],
  ]);
  const { amend, ...amending } = useAmend(
    order,
    draft.change,
    (order, amendment: Schemas["OrderAmendment"]) =>
      got(api.POST("/api/order/amend", { body: { order, amendment } })),
  );
  const found = useMemo(() => byField(work.error), [work.error]);
  const faults = { ...amending.faults, ...found };
  const set = (part: Partial<Order>, path: string) => draft.change({ ...order, ...part }, path);
  const setDough = (i: number, dough: Schemas["Ordered"], path: string) =>
    set({ doughs: order.doughs.map((d, j) => (j === i ? dough : d)) }, `doughs[${i}].${path}`);
  const batchOf = (i: number) => {
    const batch = work.data?.batches[i];
    return batch && timed(batch, i, arranged.kept.data);
  };
  return (
    <FaultsContext.Provider value={faults}>
      <div className="roomHead">
        <Title>{order.name}</Title>
        <TextInput
          aria-label="Name of the order"
          variant="unstyled"
          className={classes.name}
          value={order.name}
          readOnly={readOnly}
          error={order.name.trim() ? faults.name : "An order needs a name."}
          onChange={(e) => set({ name: e.currentTarget.value }, "name")}
        />
        <SavedWord saving={draft.saving} readOnly={readOnly} />
        <div className="actions">
          {!readOnly && (
            <>
              <ActionIcon
                variant="default"
                size={42}
                aria-label="Undo"
                disabled={!draft.canUndo}
                onClick={draft.undo}
              >
                <IconArrowBackUp size={20} />
              </ActionIcon>
              <ActionIcon
                variant="default"
                size={42}
                aria-label="Redo"
                disabled={!draft.canRedo}
                onClick={draft.redo}
              >
                <IconArrowForwardUp size={20} />
              </ActionIcon>
            </>
          )}
          <Button variant="default" size="md" onClick={() => setEarlier(true)}>
            Earlier versions
          </Button>
          <Earlier
            opened={earlier}
            close={() => setEarlier(false)}
            documentKey={["order", saved.id]}
            name={order.name}
            readOnly={readOnly}
            list={() =>
              got(
                api.GET("/api/orders/{order_id}/versions", {
                  params: { path: { order_id: saved.id } },
                }),
              )
            }
            take={async (revision) => {
              const path = { order_id: saved.id, revision };
              draft.change(
                await got(
                  api.GET("/api/orders/{order_id}/versions/{revision}", { params: { path } }),
                ),
                "",
              );
            }}
          />
          <Button
            component={Link}
            to={`/day/${saved.id}/sheets?as=labels`}
            size="md"
            variant="default"
          >
            Bag labels and sheets
          </Button>
          {!readOnly && (
            <Button
              variant="default"
              size="md"
              loading={copy.isPending}
              onClick={() => copy.mutate()}
            >
              Copy to a week later
            </Button>
          )}
          {!readOnly && arranged.kept.data && !arranged.kept.data.opened_at && (
            <Button
              size="md"
              loading={arranged.doing.isPending}
              onClick={() => arranged.doing.mutate("open", { onSuccess: () => go("/today") })}
            >
              Start the day
            </Button>
          )}
          {arranged.kept.data?.opened_at && (
            <Button component={Link} to="/today" size="md">
              Today
            </Button>
          )}
        </div>
      </div>
      {draft.saving.state === "overtaken" && (
        <div className="bar mind" role="alert">
          <span>{draft.saving.why}</span>
          <Button variant="default" onClick={draft.drop}>
            Discard mine, use the other version
          </Button>
        </div>
      )}
      <div className={classes.views} role="tablist" aria-label="The day">
        {VIEWS.map(([key, label]) => (
          <button
            key={key}
            type="button"
            role="tab"
            aria-selected={view === key}
            onClick={() => setQuery(key === "orders" ? {} : { view: key }, { replace: true })}
          >
            {label}
          </button>
        ))}
      </div>
      {view === "timetable" && (
        <DayPlan id={saved.id} order={order} arranged={arranged} readOnly={readOnly} change={set} />
      )}
      <fieldset disabled={readOnly} className={classes.order} hidden={view !== "orders"}>
        <MomentInput
          label="Ready at"
          clearable
          value={order.ready_at}
          error={faults.ready_at}
          onChange={(at) => amend({ change: "ready_at", at }, "ready_at")}
        />
        <Standing id={saved.id} revision={saved.revision} order={order} set={set} />
        {/* until a timetable says when each lies where */}
        {(arranged.kept.data ? [] : work.data?.crowds)?.map((crowd) => (
          <p key={crowd.place} className="bar mind" role="status">
            {crowd.says}
          </p>
        ))}
        <HandsEditor order={order} faults={faults} set={set} />
        {order.doughs.map((dough, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: doughs have no identity but their place
          <section key={i} className={classes.dough}>
            <DoughOrder
              index={i}
              dough={dough}
              plans={plans.data ?? []}
              change={(next, path) => setDough(i, next, path)}
              ofPlan={(plan_id) =>
                amend({ change: "plan", index: i, plan_id }, `doughs[${i}].plan_id`)
              }
              readyAt={order.ready_at ?? null}
              fromStore={(block) =>
                amend({ change: "block", index: i, block }, `doughs[${i}].block`)
              }
              remove={
                order.doughs.length > 1
                  ? () => set({ doughs: order.doughs.filter((_, j) => j !== i) }, "doughs")
                  : undefined
              }
            />
            <BatchView batch={batchOf(i)} />
          </section>
        ))}
        {!readOnly && plans.data && plans.data.length > 0 && order.doughs.length < 20 && (
          <NativeSelect
            aria-label="Order of another dough"
            w={320}
            value=""
            data={[
              { value: "", label: "Order of another dough" },
              ...plans.data.map((p) => ({ value: String(p.id), label: p.name })),
            ]}
            onChange={(e) => {
              const line = plans.data.find((p) => String(p.id) === e.currentTarget.value);
              if (line) set({ doughs: [...order.doughs, wantedOf(line)] }, "doughs");
            }}
          />
        )}
      </fieldset>
    </FaultsContext.Provider>
  );
}
