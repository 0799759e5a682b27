/** Who is there: shifts with their hours, and how many hands each is. */
import { ActionIcon, Button, Chip, NativeSelect, TextInput } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useTrade } from "@/api/trade";
import { MeasureInput } from "@/measures/MeasureInput";
import { MomentInput } from "@/measures/MomentInput";
import { houseTime } from "@/wire/clock";
import classes from "./Hands.module.css";

type Order = Schemas["Order"];
type Shift = Schemas["Shift"];
type Chapter = NonNullable<Shift["only"]>[number];

interface Props {
  order: Order;
  faults: Record<string, string>;
  set: (part: Partial<Order>, path: string) => void;
}

const PREFERS = [
  { value: "neither", label: "what the plans say" },
  { value: "fresh", label: "the freshest doughs" },
  { value: "sleep", label: "nights free" },
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
  const trade = useTrade();
  const hands = order.hands ?? [];
  const quiet = order.quiet ?? [];
  const still = (i: number, part: Partial<Schemas["Quiet"]>, name: string) =>
    set({ quiet: quiet.map((q, j) => (j === i ? { ...q, ...part } : q)) }, `quiet[${i}].${name}`);
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
            label="Shift, or names"
            placeholder="early, or Wren, Tam"
            value={shift.name}
            error={faults[`hands[${i}].name`]}
            onChange={(e) => put(i, { name: e.currentTarget.value }, "name")}
          />
          <MomentInput
            label="From"
            value={shift.starts}
            error={faults[`hands[${i}].starts`]}
            onChange={(starts) => starts && put(i, { starts }, "starts")}
          />
          <MomentInput
            label="To"
            value={shift.ends}
            error={faults[`hands[${i}].ends`]}
            onChange={(ends) => ends && put(i, { ends }, "ends")}
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
            aria-label={`Remove ${shift.name}`}
            onClick={() => set({ hands: hands.filter((_, j) => j !== i) }, "hands")}
          >
            <IconX size={18} />
          </ActionIcon>
          <Does
            only={shift.only ?? []}
            name={shift.name}
            chapters={trade.options<Chapter>("chapter")}
            give={(only) => put(i, { only }, "only")}
          />
        </div>
      ))}
      {quiet.map((hours, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: hours have no identity but their place
        <div key={i} className={classes.shift}>
          <p className={classes.nobody}>Nobody at the bench</p>
          <MomentInput
            label="From"
            value={hours.starts}
            error={faults[`quiet[${i}].starts`]}
            onChange={(starts) => starts && still(i, { starts }, "starts")}
          />
          <MomentInput
            label="To"
            value={hours.ends}
            error={faults[`quiet[${i}].ends`]}
            onChange={(ends) => ends && still(i, { ends }, "ends")}
          />
          <span />
          <ActionIcon
            variant="subtle"
            color="dark"
            size={42}
            aria-label="Take these quiet hours off"
            onClick={() => set({ quiet: quiet.filter((_, j) => j !== i) }, "quiet")}
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
            const from = last?.ends ?? first ?? new Date(houseTime()).toISOString();
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
        {hands[0] && (
          <Button
            variant="default"
            onClick={() => {
              const starts =
                quiet.at(-1)?.ends ?? hands[0]?.ends ?? new Date(houseTime()).toISOString();
              const ends = new Date(Date.parse(starts) + 3_600_000).toISOString();
              set({ quiet: [...quiet, { starts, ends }] }, "quiet");
            }}
          >
            Hours with nobody at the bench
          </Button>
        )}
        <NativeSelect
          label="If there is a choice, prefer"
          value={order.prefer ?? "neither"}
          data={PREFERS}
          onChange={(e) => set({ prefer: e.currentTarget.value as Order["prefer"] }, "prefer")}
        />
      </div>
    </section>
  );
}

/** What of the work a shift does: all of it, unless somebody says otherwise. */
function Does({
  only,
  name,
  chapters,
  give,
}: {
  only: Chapter[];
  name: string;
  chapters: { value: Chapter; label: string }[];
  give: (only: Chapter[]) => void;
}) {
  const [chosen, choose] = useState(only.length > 0);
  if (!chosen)
    return (
      <button
        type="button"
        className={classes.all}
        aria-label={`${name || "This shift"} does everything: choose`}
        onClick={() => choose(true)}
      >
        does everything
      </button>
    );
  const does = only.length ? only : chapters.map((c) => c.value);
  return (
    <fieldset className={classes.does} aria-label={`What ${name} does`}>
      <Chip.Group
        multiple
        value={does}
        onChange={(chosen) => {
          // nobody comes to do nothing: what is all of it is said by saying none
          const next = chapters.map((c) => c.value).filter((c) => chosen.includes(c));
          give(next.length === chapters.length ? [] : next);
        }}
      >
        {chapters.map((c) => (
          <Chip key={c.value} value={c.value} size="sm" variant="outline">
            {c.label}
          </Chip>
        ))}
      </Chip.Group>
    </fieldset>
  );
}
