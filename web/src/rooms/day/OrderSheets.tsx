import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { Nothing, Waiting } from "@/app/states";
import { useSaying } from "@/measures/likes";
import { SheetPages } from "@/sheets/SheetPages";
import { timed } from "@/threads/threads";
import { useWorkedOrder } from "./OrderRoom";
import { useArranged } from "./useArranged";

/** The sheets and labels of a whole order. */
export function OrderSheets() {
  const id = Number(useParams().orderId);
  const saved = useQuery({
    queryKey: ["order", id],
    queryFn: () => got(api.GET("/api/orders/{order_id}", { params: { path: { order_id: id } } })),
  });
  if (saved.isPending) return <Waiting what="the order" />;
  if (!saved.data) return <Nothing error={saved.error} retry={saved.refetch} />;
  return <OfOrder id={id} order={saved.data.order} />;
}

function OfOrder({ id, order }: { id: number; order: Schemas["Order"] }) {
  const work = useWorkedOrder(order);
  const { kept } = useArranged(id, "", false, true);
  const { say } = useSaying();
  if (!work.data) {
    return work.isError ? <Nothing error={work.error} /> : <Waiting what="the sheets" />;
  }
  return (
    <SheetPages
      title={order.name}
      back={`/day/${id}`}
      shopping={work.data.shopping}
      shoppingSays={work.data.shopping_says}
      csv={`/api/orders/${id}/sheets.csv`}
      labels={`/api/orders/${id}/labels.pdf`}
      sheets={[
        ...work.data.prepared.map((sheet) => ({ name: order.name, sheet, times: 1, at: null })),
        ...work.data.batches.flatMap((batch, i) =>
          timed(batch, i, kept.data).sheets.map(({ sheet, times, at }) => ({
            name: batch.name,
            sheet,
            times,
            at,
            makes:
              sheet.stop === "lock_in"
                ? `${Math.round(batch.block.width_mm)} × ${say("length", Math.round(batch.block.length_mm))}, ${say("length", batch.block.thickness_mm)} thick`
                : sheet.stop === "mix"
                  ? `${say("mass", batch.dough_g)} each dough, ${batch.doughs} in all`
                  : undefined,
          })),
        ),
      ]}
    />
  );
}
