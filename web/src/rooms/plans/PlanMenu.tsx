import { ActionIcon, Menu } from "@mantine/core";
import { IconDots } from "@tabler/icons-react";
import { useMutation } from "@tanstack/react-query";
import { Suspense, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, got, type Schemas, sendFile } from "@/api/client";
import { queries, sentence, useKitchen } from "@/api/queries";
import type { Worked } from "@/api/steps";
import { lazily } from "@/wire/lazily";

const Earlier = lazily(async () => (await import("@/drafts/Earlier")).Earlier);
const BegunAlready = lazily(async () => (await import("./BegunAlready")).BegunAlready);
const ClockTimes = lazily(async () => (await import("./ClockTimes")).ClockTimes);
const PasteFormula = lazily(async () => (await import("./PasteFormula")).PasteFormula);

type Plan = Schemas["Plan"];

interface Props {
  id: number;
  plan: Plan;
  worked?: Worked;
  readOnly: boolean;
  change: (plan: Plan, path: string) => void;
  showKeys: () => void;
  searchFolds: () => void;
}

/** Everything else one does with a plan: files, tables, sheets to print, a copy. */
export function PlanMenu({ id, plan, worked, readOnly, change, showKeys, searchFolds }: Props) {
  const go = useNavigate();
  const table = useRef<HTMLInputElement>(null);
  const [earlier, setEarlier] = useState(false);
  const [begun, setBegun] = useState(false);
  const [pasting, setPasting] = useState(false);
  const [timing, setTiming] = useState(false);
  const kitchen = useKitchen();
  const copy = useMutation({
    mutationFn: () =>
      got(api.POST("/api/plans/{plan_id}/copy", { params: { path: { plan_id: id } } })),
    onSuccess: (made) => {
      queries.invalidateQueries({ queryKey: ["plans"] });
      go(`/plans/${made.id}`);
    },
  });
  const read = useMutation({
    mutationFn: (file: File) => sendFile<Schemas["Line"][]>("/api/formula/csv", file),
    onSuccess: (lines) => {
      if (!plan.formula) return;
      // The bakery's own ingredients travel with the formula that names them.
      const shelf = [...plan.formula.own, ...(kitchen.data?.ingredients ?? [])];
      const named = new Map(shelf.map((i) => [i.key, i]));
      const own = lines.flatMap((line) => named.get(line.ingredient) ?? []);
      change({ ...plan, formula: { ...plan.formula, lines, own } }, "formula.lines");
    },
  });
  const failed = read.error ?? copy.error;
  return (
    <>
      <Menu position="bottom-end">
        <Menu.Target>
          <ActionIcon variant="default" size={40} aria-label="More for this plan">
            <IconDots size={20} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => setBegun(true)}>Begun already?</Menu.Item>
          <Menu.Item onClick={() => setTiming(true)}>With clock times</Menu.Item>
          <Menu.Item onClick={searchFolds}>Search for other folds</Menu.Item>
          <Menu.Item component={Link} to={`/plans/compare?plans=${id}`}>
            Compare with other plans
          </Menu.Item>
          <Menu.Item component={Link} to={`/plans/${id}/sheets`}>
            Weigh-out sheets and labels
          </Menu.Item>
          <Menu.Item component="a" href={`/api/plans/${id}/file`} download>
            Download as a file
          </Menu.Item>
          {plan.formula && (
            <Menu.Item component="a" href={`/api/plans/${id}/formula.csv`} download>
              Formula as a table
            </Menu.Item>
          )}
          {plan.formula && !readOnly && (
            <Menu.Item onClick={() => table.current?.click()}>Formula from a table</Menu.Item>
          )}
          {plan.formula && !readOnly && (
            <Menu.Item onClick={() => setPasting(true)}>Formula from a pasted list</Menu.Item>
          )}
          {!readOnly && <Menu.Item onClick={() => copy.mutate()}>Make a copy</Menu.Item>}
          <Menu.Item onClick={() => setEarlier(true)}>Earlier versions</Menu.Item>
          <Menu.Item component={Link} to={`/plans/${id}/paper`}>
            On paper
          </Menu.Item>
          <Menu.Item onClick={showKeys}>Keys (?)</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <Suspense>
        {pasting && <PasteFormula plan={plan} change={change} close={() => setPasting(false)} />}
        {earlier && (
          <Earlier
            opened
            close={() => setEarlier(false)}
            documentKey={["plan", id]}
            name={plan.name}
            readOnly={readOnly}
            list={() =>
              got(api.GET("/api/plans/{plan_id}/versions", { params: { path: { plan_id: id } } }))
            }
            take={async (revision) => {
              const path = { plan_id: id, revision };
              change(
                await got(
                  api.GET("/api/plans/{plan_id}/versions/{revision}", { params: { path } }),
                ),
                "",
              );
            }}
          />
        )}
        {worked && timing && (
          <ClockTimes planId={id} worked={worked} close={() => setTiming(false)} />
        )}
        {worked && begun && (
          <BegunAlready planId={id} worked={worked} opened close={() => setBegun(false)} />
        )}
      </Suspense>
      <input
        ref={table}
        type="file"
        accept=".csv,text/csv"
        hidden
        aria-label="Formula from a table"
        onChange={(e) => {
          const file = e.currentTarget.files?.[0];
          if (file) read.mutate(file);
          e.currentTarget.value = "";
        }}
      />
      {failed && (
        <p role="alert" className="bar mind">
          {sentence(failed)}
        </p>
      )}
    </>
  );
}
