import { ActionIcon, Button, NativeSelect, TextInput } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import { useQuery } from "@tanstack/react-query";
import { useContext } from "react";
import { Link } from "react-router";
import { api, got, type Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { blockQuery } from "@/blocks/blocks";
import { Choice } from "@/measures/Choice";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import { MomentInput } from "@/measures/MomentInput";
import { span } from "@/measures/quantity";
import classes from "./Day.module.css";

type Ordered = Schemas["Ordered"];
type Wanted = Ordered["products"][number];

interface Props {
  index: number;
  dough: Ordered;
  plans: Schemas["PlanLine"][];
  change: (dough: Ordered, path: string) => void;
  /** Another plan for it: what comes of that follows. */
  ofPlan: (plan_id: number) => void;
  remove?: () => void;
  /** So many of its pieces are made of a block of the cold store, which is a line of its own then. */
  fromStore: (block: string) => void;
  /** When the order is wanted. */
  readyAt: string | null;
}

/** What is wanted of one plan: products, or the flour at hand. */
export function DoughOrder({
  index,
  dough,
  plans,
  change,
  ofPlan,
  remove,
  fromStore,
  readyAt,
}: Props) {
  const faults = useContext(FaultsContext);
  const { words } = useSaying();
  const path = `doughs[${index}]`;
  const byFlour = dough.flour_g !== null && dough.flour_g !== undefined;
  const setProduct = (n: number, part: Partial<Wanted>, name: string) =>
    change(
      { ...dough, products: dough.products.map((p, j) => (j === n ? { ...p, ...part } : p)) },
      `products[${n}].${name}`,
    );
  const field = (n: number, label: string, name: "pieces" | "raw_g" | "loss_pct") => {
    const wanted = dough.products[n] as Wanted;
    return (
      <MeasureInput
        label={`${wanted.product}, ${label.toLowerCase()}`}
        hideLabel
        quantity={name === "pieces" ? "number" : name === "raw_g" ? "mass" : "share"}
        path={`${path}.products[${n}].${name}`}
        value={wanted[name]}
        onChange={(v) => v !== null && setProduct(n, { [name]: v }, name)}
      />
    );
  };
  return (
    <div className={classes.wanted}>
      <div className={classes.of}>
        <NativeSelect
          aria-label="Plan"
          value={String(dough.plan_id)}
          error={words(faults[`${path}.plan_id`] ?? "")}
          data={plans.map((p) => ({ value: String(p.id), label: p.name }))}
          onChange={(e) => ofPlan(Number(e.currentTarget.value))}
        />
        {remove && (
          <ActionIcon
            variant="subtle"
            color="dark"
            size={42}
            aria-label="Take this dough off the order"
            onClick={remove}
          >
            <IconX size={18} />
          </ActionIcon>
        )}
      </div>
      <table className={classes.products}>
        <thead>
          <tr>
            <th scope="col">Product</th>
            <th scope="col">Pieces</th>
            <th scope="col">Raw, each</th>
            <th scope="col">Loss</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {dough.products.map((wanted, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: products may share a name
            <tr key={n}>
              <td>
                <TextInput
                  aria-label={`Product ${n + 1}`}
                  value={wanted.product}
                  error={faults[`${path}.products[${n}].product`]}
                  onChange={(e) => setProduct(n, { product: e.currentTarget.value }, "product")}
                />
              </td>
              <td data-of="Pieces">{field(n, "Pieces", "pieces")}</td>
              <td data-of="Raw, each">{field(n, "Raw weight", "raw_g")}</td>
              <td data-of="Loss">{field(n, "Loss", "loss_pct")}</td>
              <td>
                {dough.products.length > 1 && (
                  <ActionIcon
                    variant="subtle"
                    color="dark"
                    size={36}
                    aria-label={`Take ${wanted.product} off`}
                    onClick={() =>
                      change(
                        { ...dough, products: dough.products.filter((_, j) => j !== n) },
                        "products",
                      )
                    }
                  >
                    <IconX size={16} />
                  </ActionIcon>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className={classes.more}>
        <MomentInput
          label="Ready at, if different from the order"
          clearable
          value={dough.ready_at}
          error={faults[`${path}.ready_at`]}
          onChange={(ready_at) => change({ ...dough, ready_at }, "ready_at")}
        />
        <Button
          variant="default"
          onClick={() =>
            change(
              {
                ...dough,
                products: [
                  ...dough.products,
                  { ...(dough.products[0] as Wanted), product: "Another product", pieces: 10 },
                ],
              },
              "products",
            )
          }
        >
          Add a product
        </Button>
        {dough.block ? null : (
          <Choice
            label="From"
            tight
            value={byFlour ? "flour" : "pieces"}
            options={[
              { value: "pieces", label: "Pieces wanted" },
              { value: "flour", label: "Flour at hand" },
            ]}
            onChange={(from) =>
              change({ ...dough, flour_g: from === "flour" ? 16_000 : null }, "flour_g")
            }
          />
        )}
        {byFlour && (
          <MeasureInput
            label="Flour at hand"
            quantity="mass"
            path={`${path}.flour_g`}
            value={dough.flour_g}
            onChange={(flour_g) => flour_g !== null && change({ ...dough, flour_g }, "flour_g")}
          />
        )}
        {!dough.block && (
          <>
            <MeasureInput
              label="One dough"
              quantity="mass"
              path={`${path}.dough_g`}
              value={dough.dough_g}
              emptyMeans="as in the plan"
              onChange={(dough_g) => change({ ...dough, dough_g }, "dough_g")}
            />
            <Choice
              label="Doughs"
              tight
              value={dough.sizing}
              options={[
                { value: "even", label: "Evened out" },
                { value: "whole", label: "All that size" },
              ]}
              onChange={(sizing) => change({ ...dough, sizing }, "sizing")}
            />
          </>
        )}
      </div>
      {/* last, so that nothing moves under a finger when it comes */}
      <FromStore
        dough={dough}
        at={dough.ready_at ?? readyAt}
        error={words(faults[`${path}.block`] ?? "")}
        take={fromStore}
        leave={() => change({ ...dough, block: null }, "block")}
      />
    </div>
  );
}

interface FromStoreProps {
  /** When it is wanted. */
  at: string | null;
  dough: Ordered;
  error: string;
  take: (block: string) => void;
  leave: () => void;
}

/** What lies in the cold store of this plan, and what it would save; or the block that this line is. */
function FromStore({ dough, at, error, take, leave }: FromStoreProps) {
  const { say } = useSaying();
  const { said } = useTrade();
  const there = useQuery({
    queryKey: ["store", "fitting", dough.plan_id, at],
    queryFn: () =>
      got(
        api.GET("/api/blocks/fitting/{plan_id}", {
          params: { path: { plan_id: dough.plan_id }, query: at ? { at } : {} },
        }),
      ),
    staleTime: 20_000,
  });
  const mine = useQuery({ ...blockQuery(dough.block ?? ""), enabled: Boolean(dough.block) });
  if (dough.block) {
    const saves = there.data?.find((b) => b.id === dough.block)?.saves_min;
    return (
      <p className={classes.store}>
        Made of <Link to={`/store/${dough.block}`}>{mine.data ? mine.data.mark : "a block"}</Link>{" "}
        from the cold store
        {mine.data?.standing.frozen ? ", which is thawed first" : ""}.
        {saves !== undefined && ` It saves ${span(saves)} of work.`}
        {error && <b role="alert"> {error}</b>}
        <Button variant="default" size="compact-md" onClick={leave}>
          Mix it anew instead
        </Button>
      </p>
    );
  }
  if (!there.data?.length) return null;
  return (
    <p className={classes.store}>
      In the cold store:{" "}
      {there.data.map((b) => (
        <button type="button" key={b.id} className={classes.offer} onClick={() => take(b.id)}>
          {b.mark}
          {b.same ? "" : `, ${b.name}`}, {say("mass", Math.round(b.grams))} in the{" "}
          {said("place", b.place)}, saves {span(b.saves_min)}
        </button>
      ))}
    </p>
  );
}
