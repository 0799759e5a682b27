/** Plans side by side: what differs is marked, what is equal recedes. */
import type { ReactNode } from "react";
import type { Schemas } from "@/api/client";
import { made, type Worked } from "@/api/steps";
import { FromSide } from "@/drawings/FromSide";
import { FoldGlyph } from "@/drawings/Ribbon";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { restMin } from "@/steps/stays";
import classes from "./Comparison.module.css";
import { alike, FACTS, type Fact } from "./facts";

export interface Compared {
  key: string;
  title: ReactNode;
  turns: Schemas["Turn"][];
  facts: Schemas["Facts"];
  /** The worked plan, for its drawing; a suggestion has none yet. */
  worked?: Schemas["WorkedPlan"];
  says?: string;
  action?: ReactNode;
}

/** The turns as folded ribbon, with a dip after each that rests. */
function Turns({ turns }: { turns: Schemas["Turn"][] }) {
  const { fold } = useSaying();
  const words = turns.map((t) => fold(t.fold)).join(", ");
  return (
    <span className={classes.turns} role="img" aria-label={words || "no folds"} title={words}>
      {turns.map((turn, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: turns have no identity but their place
        <span key={i} data-rest={restMin(turn.rest) > 0 || undefined}>
          <FoldGlyph fold={turn.fold} width={58} />
        </span>
      ))}
    </span>
  );
}

export function Comparison({ columns }: { columns: Compared[] }) {
  const { say, leaf } = useSaying();
  const shown = (fact: Fact, facts: Schemas["Facts"]): string => {
    const value = fact.of(facts);
    if (value === null || value === undefined) return "–";
    if (fact.as === "leaf") return leaf(value);
    if (fact.as === "count") return String(value);
    if (fact.as === "span") return span(value);
    if (fact.as === "length" || fact.as === "mass") return say(fact.as, Math.round(value));
    return say(fact.as, value);
  };
  return (
    <div className={classes.scroll}>
      <table className={classes.table}>
        <thead>
          <tr>
            <td className={classes.corner} />
            {columns.map((c) => (
              <th key={c.key} scope="col">
                <span className={classes.title}>{c.title}</span>
                <Turns turns={c.turns} />
                {c.says && <p>{c.says}</p>}
                {c.action}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {columns.some((c) => c.worked) && (
            <tr>
              <th scope="row">From the side</th>
              {columns.map((c) => (
                <td key={c.key} className={classes.side}>
                  {c.worked && <LastSheet worked={c.worked} />}
                </td>
              ))}
            </tr>
          )}
          {FACTS.map((fact) => {
            const texts = columns.map((c) => shown(fact, c.facts));
            const same = alike(texts);
            const most = Math.max(...columns.map((c) => fact.of(c.facts) ?? 0));
            return (
              <tr key={fact.label} data-same={same || undefined}>
                <th scope="row">{fact.label}</th>
                {columns.map((c, i) => (
                  <td key={c.key}>
                    <span className={classes.value}>{texts[i]}</span>
                    {!same && most > 0 && (
                      <i
                        className={classes.bar}
                        style={{ width: `${(100 * (fact.of(c.facts) ?? 0)) / most}%` }}
                      />
                    )}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function LastSheet({ worked }: { worked: Worked }) {
  const final = made(worked, "last_sheet");
  if (!final) return null;
  return (
    <FromSide section={final.section} layers={final.layers} size={final} state="the last sheet" />
  );
}
