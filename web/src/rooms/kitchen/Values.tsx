import { Button, TextInput } from "@mantine/core";
import { Fragment, type ReactNode, useState } from "react";
import { useSearchParams } from "react-router";
import { useTrade } from "@/api/trade";
import { RowInput } from "@/measures/RowInput";
import { capital } from "@/measures/words";
import { found, type Row } from "./found";
import { RangeBand } from "./RangeBand";
import classes from "./Values.module.css";

interface Props {
  table: Row[];
  readOnly: boolean;
  set: (key: string, value: number) => void;
  reset: (key: string) => void;
}

/** The table of practice: what is this bakery's own first, all else by search or by group. */
export function Values({ table, readOnly, set, reset }: Props) {
  const { said } = useTrade();
  const [query, setQuery] = useSearchParams();
  const sought = query.get("find") ?? "";
  // Whatever is or was one's own stands on top; but what was just changed in a group stays under the
  // hand that changed it.
  const [yours] = useState(() => new Set<string>());
  const [changed] = useState(() => new Set<string>());
  for (const { key, origin } of table) {
    if (origin === "yours" && !changed.has(key)) yours.add(key);
  }
  const change = (key: string, value: number) => {
    if (!yours.has(key)) changed.add(key);
    set(key, value);
  };
  const nameOf = (group: string) => capital(said("family", group));
  const hits = sought.trim() ? found(table, sought, (r) => `${r.label} ${nameOf(r.group)}`) : null;
  const groups = new Map<string, Row[]>();
  for (const row of hits ?? table.filter((r) => !yours.has(r.key))) {
    groups.set(row.group, [...(groups.get(row.group) ?? []), row]);
  }
  const rows = (of: Row[]) => (
    <fieldset className={classes.rows} disabled={readOnly}>
      {of.map((row) => {
        const high = of.find((r) => r.key === row.key.replace(/\.low$/, ".high"));
        return (
          <Fragment key={row.key}>
            {row.key.endsWith(".low") && high && (
              <RangeBand low={row} high={high} set={change} readOnly={readOnly} />
            )}
            <Value row={row} set={change} reset={reset} />
          </Fragment>
        );
      })}
    </fieldset>
  );
  return (
    <section aria-label="Values">
      <TextInput
        className={classes.search}
        type="search"
        aria-label="Find a value"
        placeholder="Find a value: fridge, relaxing after a book, sheeter"
        value={sought}
        onChange={({ currentTarget: { value } }) =>
          setQuery(value ? { find: value } : {}, { replace: true })
        }
      />
      {hits?.length === 0 && (
        <p className="quiet" role="status">
          No value is called so. Try one word of it.
        </p>
      )}
      {!hits && yours.size > 0 && (
        <div className={classes.yours}>
          <h2>Yours</h2>
          {rows(table.filter((r) => yours.has(r.key)))}
        </div>
      )}
      <div className={classes.groups}>
        {[...groups].map(([group, of]) => (
          // By what it is and not by its name, which may come later than somebody types here.
          <Group
            key={`${group} ${hits ? "found" : ""}`}
            name={nameOf(group)}
            of={of}
            open={hits !== null}
          >
            {() => rows(of)}
          </Group>
        ))}
      </div>
    </section>
  );
}

interface GroupProps {
  name: string;
  of: Row[];
  open: boolean;
  children: () => ReactNode;
}

const FEW = 3;

/** A group of rows, folded to its name and what it is about until somebody wants it. */
function Group({ name, of, open, children }: GroupProps) {
  const [opened, setOpened] = useState(open);
  return (
    <details
      className={classes.group}
      open={opened}
      onToggle={(event) => setOpened(event.currentTarget.open)}
    >
      <summary>
        <b>{name}</b>
        <span className="quiet">
          {of.length} {of.length === 1 ? "value" : "values"}
        </span>
        {!opened && (
          <small className={classes.about}>
            {of
              .map((r) => r.label)
              .slice(0, FEW)
              .join(", ")}
            {of.length > FEW && " …"}
          </small>
        )}
      </summary>
      {opened && children()}
    </details>
  );
}

function Value({ row, set, reset }: Omit<Props, "table" | "readOnly"> & { row: Row }) {
  return (
    <div className={classes.row} data-half={/\.(low|high)$/.test(row.key) || undefined}>
      <RowInput row={row} set={set} />
      {row.origin === "yours" && (
        <Button
          variant="default"
          size="xs"
          onClick={() => reset(row.key)}
          aria-label={`${row.label}: back to trade practice`}
        >
          Back
        </Button>
      )}
    </div>
  );
}
