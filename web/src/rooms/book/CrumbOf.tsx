/** The crumb of a cut piece, measured by its photograph: what was found is drawn over the picture. */
import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, byField, got } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { FaultsContext } from "@/measures/faults";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./Photos.module.css";

const key = (run: string) => ["run-crumb", run];

export function CrumbOf({ run, photo }: { run: string; photo: string }) {
  const measured = useQuery({
    queryKey: key(run),
    queryFn: () => got(api.GET("/api/runs/{run_id}/crumb", { params: { path: { run_id: run } } })),
  });
  const mine = measured.data?.find((c) => c.photo === photo);
  const [asking, ask] = useState(false);
  const [width, setWidth] = useState<number | null>(null);
  const measure = useMutation({
    mutationFn: (width_mm: number) =>
      got(
        api.POST("/api/photos/{photo_id}/crumb", {
          params: { path: { photo_id: photo } },
          body: { width_mm },
        }),
      ),
    onSuccess: () => {
      ask(false);
      return queries.invalidateQueries({ queryKey: key(run) });
    },
  });
  return (
    <div className={classes.crumb}>
      {mine && (
        <>
          <a href={`/api/photos/${photo}/crumb.jpg?${mine.width_mm}`}>
            <img
              src={`/api/photos/${photo}/crumb.jpg?${mine.width_mm}`}
              alt="The cut piece, its cells drawn over it"
            />
          </a>
          <span>
            <b>{mine.crumb.openness_pct.toFixed(0)} % open</b>, {mine.crumb.cells} cells, half of
            them over {mine.crumb.median_cell_mm2.toFixed(1)} mm²;{" "}
            {mine.crumb.height_over_width.toFixed(2)} times as high as wide.
          </span>
          {mine.crumb.because.map((text) => (
            <span key={text} className={classes.doubt}>
              {text}
            </span>
          ))}
        </>
      )}
      {asking ? (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (width !== null) measure.mutate(width);
          }}
        >
          <FaultsContext.Provider value={byField(measure.error)}>
            <MeasureInput
              label="How wide the piece is"
              quantity="length"
              path="width_mm"
              value={width}
              onChange={setWidth}
            />
          </FaultsContext.Provider>
          <Button type="submit" size="sm" loading={measure.isPending} disabled={width === null}>
            Measure it
          </Button>
          {measure.isError && !byField(measure.error).width_mm && (
            <p role="alert">{sentence(measure.error)}</p>
          )}
        </form>
      ) : (
        <Button size="xs" variant="default" onClick={() => ask(true)}>
          {mine ? "Measure it again" : "Measure the crumb"}
        </Button>
      )}
    </div>
  );
}
