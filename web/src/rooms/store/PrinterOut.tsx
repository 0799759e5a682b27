/** The demo's simulated label printer: what came out of it, at true size, and what is the matter with it. */
import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { api, got } from "@/api/client";
import { queries } from "@/api/queries";
import { clock } from "@/app/time";
import { printerQuery } from "@/blocks/blocks";
import classes from "./Store.module.css";

export function PrinterOut() {
  const printer = useQuery(printerQuery);
  const mend = useMutation({
    mutationFn: () => got(api.POST("/api/labels/printer/mend")),
    onSuccess: (view) => queries.setQueryData(printerQuery.queryKey, view),
  });
  if (!printer.data?.simulated) return null;
  const { jammed, left, out } = printer.data;
  return (
    <section aria-label="Simulated label printer" className={classes.under}>
      <h2>Simulated label printer</h2>
      <p className={jammed || left === 0 ? classes.mind : "quiet"}>
        {jammed ? "Jammed. " : ""}
        {left === 0 ? "No paper." : `${left} tags left on its roll.`}{" "}
        {(jammed || left === 0) && (
          <Button size="compact-md" variant="default" onClick={() => mend.mutate()}>
            {jammed ? "Take the jammed tag out" : "Put in a new roll"}
          </Button>
        )}
      </p>
      <ul className={classes.out}>
        {out.map((tag) => (
          <li key={tag.id}>
            <img
              src={`/api/labels/printed/${tag.id}.svg`}
              alt={`Tag ${tag.mark}, printed ${clock(tag.at)}`}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
