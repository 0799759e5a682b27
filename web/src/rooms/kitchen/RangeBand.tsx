/** A usual range as a band with handles, over what this bakery's own plans have. */
import { useElementSize } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { api, got } from "@/api/client";
import { Hands } from "@/drawings/Handle";
import { type Grip, GroundContext, linear, useHand } from "@/drawings/hands";
import { quantityOf } from "@/measures/quantity";
import { capital } from "@/measures/words";
import type { Row } from "./found";
import classes from "./Values.module.css";

interface Props {
  /** The rows of both its ends. */
  low: Row;
  high: Row;
  set: (key: string, value: number) => void;
  readOnly: boolean;
}

const HIGH = 34;
const EDGE = 14;

/** What is pulled is tried on the drawing, and kept when it is let go. */
export function RangeBand({ low, high, set, readOnly }: Props) {
  const [tried, setTried] = useState<Record<string, number>>({});
  const latest = useRef(tried);
  latest.current = tried;
  const ground = useMemo(
    () => ({
      take: () => {},
      letGo: (asItWas: boolean) => {
        if (!asItWas) for (const [key, value] of Object.entries(latest.current)) set(key, value);
        setTried({});
      },
      busy: false,
    }),
    [set],
  );
  const now = (row: Row) => ({ ...row, value: tried[row.key] ?? row.value });
  return (
    <GroundContext.Provider value={ground}>
      <Band
        low={now(low)}
        high={now(high)}
        readOnly={readOnly}
        set={(key, value) => setTried({ [key]: value })}
      />
    </GroundContext.Provider>
  );
}

function Band({ low, high, set, readOnly }: Props) {
  const { ref, width } = useElementSize();
  const hand = useHand();
  const of = low.key.replace(/\.low$/, "");
  const seen = useQuery({
    queryKey: ["seen"],
    queryFn: () => got(api.GET("/api/plans/seen")),
    staleTime: 30_000,
  }).data?.filter((s) => s.of === of);
  const wide = Math.max(width, 120);
  const values = [low.value, high.value, ...(seen ?? []).map((s) => s.value)];
  const reach = Math.max(...values) * 1.25 || 1;
  const x = (value: number) => EDGE + ((wide - 2 * EDGE) * value) / reach;
  const grip = (row: Row, limits: [number, number]): Grip => ({
    path: `yours.${row.key}`,
    label: capital(row.label),
    quantity: quantityOf(row),
    value: row.value,
    limits,
    dir: "x",
    ...linear(0, 1),
    from: 6,
    to: HIGH - 8,
    put: (value) => set(row.key, value),
  });
  const grips = readOnly
    ? []
    : [grip(low, [low.low, high.value]), grip(high, [low.value, high.high])];
  const said = (seen ?? []).map((s) => `${s.plan} ${Number(s.value.toPrecision(3))}`);
  return (
    <div className={`drawing ${classes.band}`} ref={ref} style={{ height: HIGH }}>
      <svg
        width={wide}
        height={HIGH}
        role="img"
        aria-label={`Usual from ${low.value} to ${high.value} ${low.unit}; ${said.length ? `your plans: ${said.join(", ")}` : "no plan of yours has it"}`}
      >
        <path d={`M${x(0)},${HIGH - 8} H${x(reach)}`} stroke="var(--line)" strokeWidth={1.5} />
        <rect
          x={x(low.value)}
          y={HIGH - 13}
          width={Math.max(x(high.value) - x(low.value), 1)}
          height={10}
          rx={3}
          fill="var(--cold-ground)"
          stroke="var(--cold)"
        />
        {seen?.map((s) => (
          <circle
            key={s.plan}
            cx={x(s.value)}
            cy={HIGH - 8}
            r={4}
            fill={s.value < low.value || s.value > high.value ? "var(--mind)" : "var(--ink)"}
          >
            <title>{`${s.plan}: ${Number(s.value.toPrecision(3))}`}</title>
          </circle>
        ))}
      </svg>
      <Hands {...{ grips, hand, wide }} high={HIGH} x={x} y={(at) => at} />
    </div>
  );
}
