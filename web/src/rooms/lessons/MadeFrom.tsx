/** A lesson made from a plan, or from a day that was. */
import { Button, NativeSelect, TextInput } from "@mantine/core";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, got } from "@/api/client";
import { sentence, usePlans } from "@/api/queries";
import { day } from "@/app/time";
import { Choice } from "@/measures/Choice";
import classes from "./LessonsRoom.module.css";

const bookQuery = {
  queryKey: ["book", "for-lessons"],
  queryFn: () => got(api.GET("/api/runs", { params: { query: { under_way: false } } })),
};

export function MadeFrom({ done }: { done: (key: string) => void }) {
  const [of, setOf] = useState<"plan" | "run">("plan");
  const [chosen, choose] = useState("");
  const [name, setName] = useState("");
  const [seed, setSeed] = useState("1");
  const plans = usePlans();
  const runs = useQuery({ ...bookQuery, enabled: of === "run" });
  const queries = useQueryClient();
  const options =
    of === "plan"
      ? (plans.data ?? []).map((p) => ({ value: String(p.id), label: p.name }))
      : (runs.data?.runs ?? []).map((r) => ({
          value: r.id,
          label: `${r.name}, ${day(r.started_at)}`,
        }));
  const value = options.some((o) => o.value === chosen) ? chosen : (options[0]?.value ?? "");
  const make = useMutation({
    mutationFn: () => {
      const body = { seed: Number(seed), name: name.trim() || null };
      return of === "plan"
        ? got(
            api.POST("/api/lessons/from-plan/{plan_id}", {
              params: { path: { plan_id: Number(value) } },
              body,
            }),
          )
        : got(
            api.POST("/api/lessons/from-run/{run_id}", {
              params: { path: { run_id: value } },
              body,
            }),
          );
    },
    onSuccess: (line) => {
      queries.invalidateQueries({ queryKey: ["lessons"] });
      done(line.key);
    },
  });
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      <Choice
        label="Made from"
        value={of}
        options={[
          { value: "plan", label: "A plan" },
          { value: "run", label: "A day that was" },
        ]}
        onChange={setOf}
      />
      {of === "run" && (
        <p className="quiet">
          The room as it was told, the hands that were at it, and the fridge as the readings show
          it.
        </p>
      )}
      <NativeSelect
        size="md"
        label={of === "plan" ? "Plan" : "Record"}
        data={options}
        value={value}
        onChange={(e) => choose(e.currentTarget.value)}
        error={
          options.length === 0 && (of === "plan" ? plans.data : runs.data) && "There is none yet."
        }
      />
      <TextInput
        size="md"
        label="Name, if not the plan's"
        value={name}
        maxLength={80}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <TextInput
        size="md"
        label="Seed"
        description="The same seed is the same day, for everybody who plays it."
        inputMode="numeric"
        value={seed}
        onChange={(e) => setSeed(e.currentTarget.value.replace(/\D/g, "").slice(0, 9))}
      />
      {make.error && (
        <p className="bar mind" role="alert">
          {sentence(make.error)}
        </p>
      )}
      <Button type="submit" size="md" disabled={!value || !seed} loading={make.isPending}>
        Make it
      </Button>
    </form>
  );
}
