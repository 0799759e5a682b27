/** What there is of what is bought, what the days ahead need, and what to order by when. */
import { Button, FileButton } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, byField, got, type Schemas } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { Nothing, Title, Waiting } from "@/app/states";
import { day } from "@/app/time";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./Store.module.css";

const KEY = ["store", "stock"];

export function StockRoom() {
  const stock = useQuery({ queryKey: KEY, queryFn: () => got(api.GET("/api/stock")) });
  const read = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return got(
        api.POST("/api/stock.csv", {
          body: form as never,
          bodySerializer: (body) => body as unknown as FormData,
        }),
      );
    },
    onSuccess: (rows) => queries.setQueryData(KEY, rows),
  });
  if (stock.isPending) return <Waiting what="the stock" />;
  if (!stock.data) return <Nothing error={stock.error} retry={stock.refetch} />;
  const short = stock.data.filter((s) => s.order_by);
  return (
    <>
      <Title>Stock</Title>
      <div className="roomHead">
        <h1>Stock</h1>
        <span className="quiet">
          {short.length > 0
            ? `${short.length} to order, the first by ${day(short[0]?.order_by ?? "")}`
            : "nothing that was counted runs short"}
        </span>
        <div className="actions">
          <Button component={Link} to="/store" variant="default" size="md">
            To the shelves
          </Button>
          <FileButton onChange={(file) => file && read.mutate(file)} accept=".csv,text/csv">
            {(props) => (
              <Button {...props} variant="default" size="md" loading={read.isPending}>
                Read a table
              </Button>
            )}
          </FileButton>
          <Button variant="default" size="md" component="a" href="/api/stock.csv">
            Save as a table
          </Button>
        </div>
      </div>
      {read.isError && (
        <p className="bar mind" role="alert">
          {Object.entries(byField(read.error))
            .map(([field, message]) => (field ? `${field}: ${message}` : message))
            .join(" ") || sentence(read.error)}
        </p>
      )}
      <p className="quiet">
        Count when it matters. What doughs weigh from then on is taken off; what nobody counted is
        not known to be short.
      </p>
      <table className={classes.stock}>
        <thead>
          <tr>
            <th scope="col">Ingredient</th>
            <th scope="col">There</th>
            <th scope="col">The days ahead need</th>
            <th scope="col">To order</th>
          </tr>
        </thead>
        <tbody>
          {stock.data.map((s) => (
            <Row key={s.ingredient} of={s} />
          ))}
        </tbody>
      </table>
      {stock.data.length === 0 && (
        <p>Nothing is ordered for the days ahead, and nothing was counted.</p>
      )}
    </>
  );
}

function Row({ of }: { of: Schemas["Stocked"] }) {
  const { say } = useSaying();
  const count = useMutation({
    mutationFn: (grams: number | null) =>
      got(
        api.PUT("/api/stock/{ingredient}", {
          params: { path: { ingredient: of.ingredient } },
          body: { grams },
        }),
      ),
    onSuccess: (rows) => queries.setQueryData(KEY, rows),
  });
  return (
    <tr data-short={of.order_by ? true : undefined}>
      <th scope="row">{of.name}</th>
      <td>
        <FaultsContext.Provider value={byField(count.error)}>
          <MeasureInput
            label={`${of.name}, there`}
            hideLabel
            quantity="mass"
            path="grams"
            value={of.there_g === null ? null : Math.round(of.there_g)}
            emptyMeans="not counted"
            onLeaving
            onChange={(grams) => count.mutate(grams)}
          />
        </FaultsContext.Provider>
        {of.counted_at && (
          <small className="quiet">
            counted {day(of.counted_at)}
            {of.used_g > 0.5 && `, ${say("mass", Math.round(of.used_g))} used since`}
          </small>
        )}
      </td>
      <td>{of.needed_g > 0 ? say("mass", Math.round(of.needed_g)) : "nothing"}</td>
      <td>
        {of.order_by ? (
          <>
            <b className={classes.mind}>{say("mass", Math.round(of.short_g))} short</b>
            <span className="quiet">
              {" "}
              by {day(of.order_by)} · for {of.short_for}
            </span>
          </>
        ) : of.there_g === null ? (
          <span className="quiet">not counted</span>
        ) : (
          "enough"
        )}
      </td>
    </tr>
  );
}
