/** What was deleted lately: by whom, until when it lies there, and one press to bring it back. */
import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";
import { queries, sentence } from "@/api/queries";
import { day } from "@/app/time";
import classes from "./People.module.css";

export function Bin() {
  const bin = useQuery({ queryKey: ["bin"], queryFn: () => got(api.GET("/api/bin")) });
  const back = useMutation({
    mutationFn: ({ what, key }: Schemas["Thrown"]) =>
      got(api.POST("/api/bin/restore", { body: { what, key } })),
    onSuccess: () => queries.invalidateQueries(),
  });
  if (!bin.data?.length) return null;
  return (
    <details className={classes.people}>
      <summary>The bin: {bin.data.length} deleted in the last 30 days</summary>
      {back.isError && <p role="alert">{sentence(back.error)}</p>}
      <ul className="ruled">
        {bin.data.map((one) => (
          <li key={`${one.what} ${one.key}`} className={classes.thrown}>
            <span>
              <span className="quiet">{one.what}</span> <b>{one.name}</b>
            </span>
            <span className="quiet">
              {one.by ? `by ${one.by}, ` : ""}
              {day(one.deleted_at)}
            </span>
            <Button
              variant="default"
              aria-label={`Bring back ${one.name}`}
              onClick={() => back.mutate(one)}
            >
              Bring back
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}
