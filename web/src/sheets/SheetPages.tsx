/** Weigh-out sheets to print: whole pages, or narrow labels for bags and tubs. */
import { Button } from "@mantine/core";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "@/api/client";
import { day } from "@/app/time";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import classes from "./Sheets.module.css";

export interface Printed {
  /** The plan's name. */
  name: string;
  sheet: Schemas["WeighSheet"];
  times: number;
  at: string | null;
  /** What one of them makes, such as a block's size. */
  makes?: string;
}

interface Props {
  title: string;
  back: string;
  csv: string;
  /** Labels for its pieces, where there are any. */
  labels?: string;
  sheets: Printed[];
  /** All of it together, for the day before. */
  shopping: Schemas["Needed"][];
  shoppingSays: string;
}

export function SheetPages({ title, back, csv, labels, sheets, shopping, shoppingSays }: Props) {
  const [query, setQuery] = useSearchParams();
  const label = query.get("as") !== "pages";
  return (
    <>
      <div className="roomHead">
        <h1>{title}</h1>
        <Link to={back}>Back</Link>
        <div className="actions">
          <Choice
            label="Print as"
            tight
            value={label ? "labels" : "pages"}
            options={[
              { value: "labels", label: "Bag labels" },
              { value: "pages", label: "A4 sheets" },
            ]}
            onChange={(as) => setQuery({ as }, { replace: true })}
          />
          {labels && (
            <Button component="a" href={labels} download variant="default" size="md">
              Labels for the pieces (PDF)
            </Button>
          )}
          <Button component="a" href={csv} download variant="default" size="md">
            Table (CSV)
          </Button>
          <Button size="md" onClick={() => window.print()}>
            Print
          </Button>
        </div>
      </div>
      <div className={`paper ${label ? classes.labels : classes.pages}`}>
        {shopping.length > 0 && (
          <Shopping title={title} of={shopping} says={shoppingSays} label={label} />
        )}
        {sheets.map((printed) => (
          <Sheet key={`${printed.name}${printed.sheet.stop}`} {...printed} label={label} />
        ))}
      </div>
    </>
  );
}

/** What to have in the house the day before, each ingredient once. */
interface ShoppingProps {
  title: string;
  of: Props["shopping"];
  says: string;
  label: boolean;
}

function Shopping({ title, of, says, label }: ShoppingProps) {
  const { say, words } = useSaying();
  return (
    <article className={label ? classes.label : classes.page} aria-label="For the day before">
      <header>
        <h2>For the day before</h2>
        <p>{title}</p>
      </header>
      <table>
        <tbody>
          {of.map((what) => (
            <tr key={what.ingredient}>
              {!label && (
                <td className={classes.box} aria-hidden="true">
                  <i />
                </td>
              )}
              <th scope="row">{what.name}</th>
              <td>{say("mass", what.grams)}</td>
              {!label && <td className={classes.used} />}
            </tr>
          ))}
        </tbody>
      </table>
      <p className={classes.allergens}>
        <b>{words(says)}</b>
      </p>
    </article>
  );
}

function Sheet({ name, sheet, times, at, makes, label }: Printed & { label: boolean }) {
  const { say, words } = useSaying();
  return (
    <article className={label ? classes.label : classes.page} aria-label={`${name}: ${sheet.name}`}>
      <header>
        <h2>{sheet.name}</h2>
        <p>{name}</p>
        <p>
          <b>
            {at ? day(at) : sheet.minute > 0 ? `${span(sheet.minute)} after the start` : "first"}
          </b>
          {times > 1 && <b className={classes.times}>{times} times</b>}
        </p>
      </header>
      <table>
        <tbody>
          {sheet.lines.map((line) => (
            <tr key={line.key}>
              {!label && (
                <td className={classes.box} aria-hidden="true">
                  <i />
                </td>
              )}
              <th scope="row">
                {line.name}
                {line.pieces ? ` (${line.pieces})` : ""}
              </th>
              <td>{say("mass", line.grams)}</td>
              {!label && <td className={classes.used} />}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            {!label && <td />}
            <th scope="row">In all</th>
            <td>{say("mass", sheet.total_g)}</td>
            {!label && <td className={classes.usedHead}>weight used</td>}
          </tr>
        </tfoot>
      </table>
      <StillToAdd sheet={sheet} />
      {makes && <p>{makes}</p>}
      {sheet.says && <p>{words(sheet.says)}</p>}
      <p className={classes.allergens}>
        <b>{words(sheet.declared)}</b>
      </p>
    </article>
  );
}

/** What a preferment leaves for mixing day, ready to be copied onto the bag. */
function StillToAdd({ sheet }: { sheet: Schemas["WeighSheet"] }) {
  const { say } = useSaying();
  const left = sheet.lines.filter((l) => (l.stays_g ?? 0) > 0);
  if (left.length === 0) return null;
  return (
    <div className={classes.left}>
      <b>Still to add on mixing day</b>
      {left.map((l) => (
        <span key={l.key}>
          {l.name} <b>{say("mass", l.stays_g ?? 0)}</b>
        </span>
      ))}
    </div>
  );
}
