/** Who is there: shifts with their hours, and how many hands each is. */
import { ActionIcon, Button, NativeSelect, TextInput } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import type { Schemas } from "@/api/client";
import { fromWall, wall } from "@/app/time";
import { MeasureInput } from "@/measures/MeasureInput";
import classes from "./Hands.module.css";

type Order = Schemas["Order"];
type Shift = Schemas["Shift"];

interface Props {
  order: Order;
  faults: Record<string, string>;
  set: (part: Partial<Order>, path: string) => void;
}

const PREFERS = [
  { value: "neither", label: "as the plans have it" },
  { value: "fresh", label: "as fresh as can be" },
  { value: "sleep", label: "sleep at night" },
];

/** The shifts a day would first have: the afternoon before, and the early one. */
export function usualHands(readyAt: string): Shift[] {
  const ready = Date.parse(readyAt);
  const hour = 3_600_000;
  const at = (ms: number) => new Date(Math.round(ms / (hour / 2)) * (hour / 2)).toISOString();
  return [
    {
      name: "day before",
      starts: at(ready - 22 * hour),
      ends: at(ready - 13 * hour),
      count: 2,
      only: [],
    },
    { name: "early", starts: at(ready - 5 * hour), ends: at(ready + 3 * hour), count: 2, only: [] },
  ];
}

export function HandsEditor({ order, faults, set }: Props) {
  const hands = order.hands ?? [];
  const put = (i: number, part: Partial<Shift>, name: string) =>
    set({ hands: hands.map((s, j) => (j === i ? { ...s, ...part } : s)) }, `hands[${i}].${name}`);
  const first = order.ready_at ?? order.doughs.map((d) => d.ready_at).find(Boolean);
  return (
    <section aria-label="Hands" className={classes.hands}>
      <h2>Who is there</h2>
      {faults.hands && (
        <p className="bar mind" role="alert">
          {faults.hands}
        </p>
      )}
      {hands.map((shift, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: shifts have no identity but their place
        <div key={i} className={classes.shift}>
          <TextInput
            label="Shift or name"
            value={shift.name}
            error={faults[`hands[${i}].name`]}
            onChange={(e) => put(i, { name: e.currentTarget.value }, "name")}
          />
          <When
            label="From"
            value={shift.starts}
            error={faults[`hands[${i}].starts`]}
            give={(starts) => put(i, { starts }, "starts")}
          />
          <When
            label="To"
            value={shift.ends}
            error={faults[`hands[${i}].ends`]}
            give={(ends) => put(i, { ends }, "ends")}
          />
          <MeasureInput
            label="Hands"
            quantity="number"
            path={`hands[${i}].count`}
            value={shift.count ?? 1}
            onChange={(count) => count !== null && put(i, { count: Math.round(count) }, "count")}
          />
          <ActionIcon
            variant="subtle"
            color="dark"
            size={42}
            aria-label={`Take ${shift.name} off`}
            onClick={() => set({ hands: hands.filter((_, j) => j !== i) }, "hands")}
          >
            <IconX size={18} />
          </ActionIcon>
        </div>
      ))}
      <div className={classes.more}>
        {hands.length === 0 && first && (
          <Button onClick={() => set({ hands: usualHands(first) }, "hands")}>
            The afternoon before, and the early shift
          </Button>
        )}
        <Button
          variant="default"
          onClick={() => {
            const last = hands.at(-1);
            const from = last?.ends ?? first ?? new Date().toISOString();
            const to = new Date(Date.parse(from) + 8 * 3_600_000).toISOString();
            set(
              {
                hands: [
                  ...hands,
                  { name: `shift ${hands.length + 1}`, starts: from, ends: to, count: 1, only: [] },
                ],
              },
              "hands",
            );
          }}
        >
          Another shift
        </Button>
        <NativeSelect
          label="Where there is a choice"
          value={order.prefer ?? "neither"}
          data={PREFERS}
          onChange={(e) => set({ prefer: e.currentTarget.value as Order["prefer"] }, "prefer")}
        />
      </div>
    </section>
  );
}

function When({
  label,
  value,
  error,
  give,
}: {
  label: string;
  value: string;
  error?: string;
  give: (at: string) => void;
}) {
  return (
    <TextInput
      type="datetime-local"
      label={label}
      value={wall(value)}
      error={error}
      onChange={(e) => {
        const at = fromWall(e.currentTarget.value);
        if (at) give(at);
      }}
    />
  );
}
