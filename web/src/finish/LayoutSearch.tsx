/** The best ways to share the last sheet between the products: searched, the best few shown. */
import { Button, Modal, NativeSelect } from "@mantine/core";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { stepOf } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./Finish.module.css";

interface Props {
  plan: Schemas["Plan"];
  take: (cut: Schemas["Cut"]) => void;
  onClose: () => void;
}

/** What a layout is, in words: rows of each product, and which way they run. */
export function layoutWords(laid: Schemas["Allotted"]): string {
  const rows = laid.cut.products.map(
    (p) => `${p.rows} ${p.rows === 1 ? "row" : "rows"} of ${p.name}`,
  );
  return `${rows.join(", ")}${laid.cut.across ? ", across the sheet" : ""}`;
}

/** What an order wants of each product, by its name; 0 for any number. */
export const wantedIn = (order: Schemas["WantedOfPlan"], products: { name: string }[]): number[] =>
  products.map(({ name }) =>
    order.products.reduce((sum, w) => sum + (w.product === name ? w.pieces : 0), 0),
  );

export function LayoutSearch({ plan, take, onClose }: Props) {
  const { say } = useSaying();
  const products = stepOf(plan, "cut")?.products ?? [];
  const [wanted, setWanted] = useState<number[]>(products.map(() => 0));
  const found = useQuery({
    queryKey: ["layouts", plan, wanted],
    queryFn: () => got(api.POST("/api/layouts", { body: { plan, search: { wanted, best: 4 } } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const { planId } = useParams();
  const { data: orders = [] } = useQuery({
    queryKey: ["wanted", planId],
    queryFn: () =>
      got(
        api.GET("/api/plans/{plan_id}/wanted", { params: { path: { plan_id: Number(planId) } } }),
      ),
    enabled: Number(planId) > 0,
  });
  const { best = [], sheets = [], short = false } = found.data ?? {};
  return (
    <Modal opened onClose={onClose} title="Best layout on this sheet" size={760}>
      {orders.length > 0 && (
        <NativeSelect
          mb={12}
          label="As many as an order wants"
          value=""
          data={[
            { value: "", label: "choose an order" },
            ...orders.map((o) => ({ value: String(o.order_id), label: o.name })),
          ]}
          onChange={({ currentTarget: { value } }) => {
            const order = orders.find((o) => String(o.order_id) === value);
            if (order) setWanted(wantedIn(order, products));
          }}
        />
      )}
      <div className={classes.wanted}>
        {products.map((p, n) => (
          <MeasureInput
            // biome-ignore lint/suspicious/noArrayIndexKey: products have no identity but their place
            key={n}
            label={`${p.name} wanted`}
            quantity="count"
            path={`search.wanted[${n}]`}
            value={wanted[n] || null}
            onChange={(v) => setWanted(wanted.with(n, v ?? 0))}
            emptyMeans="any number"
          />
        ))}
      </div>
      {found.isError && <p role="alert">{sentence(found.error)}</p>}
      <ol className={classes.layouts}>
        {best.map((laid) => (
          <li key={layoutWords(laid)}>
            <div>
              <b>{layoutWords(laid)}</b>
              <p>
                {products
                  .map(
                    (p, n) =>
                      `${laid.pieces[n]} ${p.name}, ${say("mass", laid.piece_g[n] ?? 0)} each`,
                  )
                  .join(" · ")}
              </p>
              <p className="quiet">
                {Math.round(laid.useful_pct)} % of the sheet is used,{" "}
                {say("mass", Math.round(laid.trimmings_g))} of trimmings
                {typeof laid.sheets === "number" &&
                  `; ${laid.sheets} such ${laid.sheets === 1 ? "sheet" : "sheets"} for all of it`}
              </p>
            </div>
            <Button variant="default" onClick={() => take(laid.cut)}>
              Use this layout
            </Button>
          </li>
        ))}
      </ol>
      {found.data && best.length === 0 && <p>None of these fits the sheet.</p>}
      {sheets.length > 1 && (
        <p className={classes.sheets}>
          Sheet after sheet, each the best for what is left:{" "}
          {sheets.map((s) => s.pieces.join(" + ")).join(", then ")}
          {short ? "; and some still wanted after that." : "."}
        </p>
      )}
    </Modal>
  );
}
