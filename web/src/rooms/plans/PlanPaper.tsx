/** A plan on paper: its strip, formula, sheets and marks on one page, its folds on the next. */
import { Button } from "@mantine/core";
import { Fragment } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "@/api/client";
import { made, madeAt, type Plan, type Stop, stopOf, type Worked } from "@/api/steps";
import { useTrade } from "@/api/trade";
import { Title } from "@/app/states";
import { day } from "@/app/time";
import { FoldStills } from "@/drawings/Folding";
import { FromAbove } from "@/drawings/FromAbove";
import { edgesOf } from "@/finish/Marks";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import { aboveOf } from "@/steps/above";
import { DEPTH, StopGlyph, stopFacts } from "@/steps/Strip";
import { passed, restMin } from "@/steps/stays";
import { timeAt, useBegins } from "./clockTimes";
import classes from "./PlanPaper.module.css";
import { WithPlan } from "./WithPlan";

export const PlanPaper = () => (
  <WithPlan>{(id, plan, worked) => <Pages {...{ id, plan, worked }} />}</WithPlan>
);

function Pages({ id, plan, worked }: { id: number; plan: Plan; worked: Worked }) {
  const turns = worked.strip.filter((s) => madeAt(s, "turn"));
  const cut = made(worked, "cut");
  return (
    <>
      <div className="roomHead">
        <Title>{`${plan.name} on paper`}</Title>
        <h1>On paper</h1>
        <Link to={`/plans/${id}`}>Back</Link>
        <div className="actions">
          {cut && (
            <Button
              component="a"
              variant="default"
              size="md"
              href={`/api/plans/${id}/template.pdf?of=sheet`}
              download
            >
              The cut at true size
            </Button>
          )}
          <Button size="md" onClick={() => window.print()}>
            Print
          </Button>
        </div>
      </div>
      <div className="paper">
        <article className={classes.page} aria-label="The plan">
          <Head plan={plan} worked={worked} />
          <StripDown plan={plan} worked={worked} />
          <div className={classes.below}>
            <Formula worked={worked} />
            <SheetAt plan={plan} worked={worked} stop={stopOf(worked, "lock_in")} />
            <SheetAt
              plan={plan}
              worked={worked}
              stop={stopOf(worked, "cut") ?? stopOf(worked, "last_sheet")}
            />
          </div>
        </article>
        {(turns.length > 0 || cut) && (
          <article className={classes.page} aria-label="Folds and marks">
            {turns.map((stop) => (
              <Fold key={stop.key} plan={plan} stop={stop} />
            ))}
            {cut && <CutMarks plan={plan} cut={cut} />}
          </article>
        )}
      </div>
    </>
  );
}

function Head({ plan, worked }: { plan: Plan; worked: Worked }) {
  const { counted, say } = useSaying();
  const { said } = useTrade();
  const cut = made(worked, "cut");
  const { planId = "" } = useParams();
  const [begins] = useBegins(planId);
  return (
    <header>
      <h2>{plan.name}</h2>
      <p>
        {[
          said("family", plan.family),
          `dough ${say("mass", plan.dough.mass_g)}, in all ${say("mass", worked.total_g)}`,
          counted(worked.layers.butter, worked.layers.total),
          cut && `${cut.pieces} pieces`,
          span(worked.total_min),
          begins && `begins ${day(begins)}`,
        ]
          .filter(Boolean)
          .join(" · ")}
      </p>
      {plan.words && <p className={classes.words}>{plan.words}</p>}
    </header>
  );
}

const ROW = 40; // points a step takes down the page
const FEWEST_ROOMY = 15; // with more of them the rows are closer
const THREAD = 64;

/** The strip turned to run down the page: its line goes aside, further for colder, at every rest. */
function StripDown({ plan, worked }: { plan: Plan; worked: Worked }) {
  const { words } = useSaying();
  const saying = useSaying();
  const { planId = "" } = useParams();
  const [begins] = useBegins(planId);
  const stops = worked.strip;
  const row = stops.length > FEWEST_ROOMY ? (ROW * FEWEST_ROOMY) / stops.length : ROW;
  const drawn = (stop: Stop) =>
    ({
      stop,
      plan,
      worked,
      step: plan.steps[stop.n],
      made: stop.made ?? undefined,
    }) as Parameters<typeof StopGlyph>[0];
  const aside = stops.map((stop, i) => {
    if (!stop.rest || restMin(stop.rest) <= 0) return "";
    const all = passed(stop.rest);
    // each stay a ledge, as deep as it is cold
    let at = 0;
    const ledges = all.map((stay) => {
      const by = DEPTH[stay.place] * 0.9 - at;
      at += by;
      return `c0,${at === by ? 7 : 2} ${by},${at === by ? 3 : 0} ${by},${at === by ? 8 : 3} v${6 / all.length}`;
    });
    return `V${(i + 1) * row - 11} ${ledges.join(" ")} c0,5 ${-at},1 ${-at},8`;
  });
  return (
    <div className={classes.strip}>
      <svg width={THREAD} height={stops.length * row + 14} aria-hidden="true">
        <path
          d={`M5,0 ${aside.join(" ")} V${stops.length * row}`}
          fill="none"
          stroke="var(--cold)"
          strokeWidth={2}
        />
      </svg>
      <ol>
        {stops.map((stop) => (
          <li key={stop.key} style={{ height: row }}>
            <StopGlyph {...drawn(stop)} />
            <b>{stop.name}</b>
            <span>{words(stop.does[0] ?? "")}</span>
            <span className={classes.facts}>{stopFacts(drawn(stop), saying)}</span>
            <span className={classes.facts}>
              {begins && <b>{timeAt(begins, stop.starts_min)} </b>}
              {span(stop.bench_min)}
              {stop.rest && restMin(stop.rest) > 0 && (
                <>
                  , then{" "}
                  {passed(stop.rest).map((stay, n) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a stay is where it stands in the rest
                    <Fragment key={n}>
                      {n > 0 && ", "}
                      <b>{span(stay.minutes)}</b> {stay.place}
                    </Fragment>
                  ))}
                </>
              )}
            </span>
          </li>
        ))}
      </ol>
    </div>
  );
}

function Formula({ worked }: { worked: Worked }) {
  const { say } = useSaying();
  return (
    <table>
      <caption>To weigh</caption>
      <tbody>
        {worked.shopping.map((what) => (
          <tr key={what.ingredient}>
            <th scope="row">{what.name}</th>
            <td>{say("mass", what.grams)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function SheetAt({ plan, worked, stop }: { plan: Plan; worked: Worked; stop?: Stop }) {
  if (!stop) return null;
  return (
    <figure>
      <figcaption>{stop.name}</figcaption>
      <div className={classes.sheet}>
        <FromAbove {...aboveOf(stop, plan, worked)} minHeight={150} />
      </div>
    </figure>
  );
}

function Fold({ plan, stop }: { plan: Plan; stop: Stop }) {
  const { fold } = useSaying();
  const turn = madeAt(stop, "turn");
  const step = plan.steps.find((s) => s.id === stop.key);
  if (!turn || step?.do !== "turn") return null;
  return (
    <section className={classes.fold}>
      <h3>
        {stop.name}: {fold(turn.fold)}
      </h3>
      <FoldStills step={turn} stacked={step.stacked} />
    </section>
  );
}

/** Every mark of the cut, from the datum. */
function CutMarks({ plan, cut }: { plan: Plan; cut: Schemas["CutFigures"] }) {
  const { figure, say } = useSaying();
  const products = plan.steps.find((s) => s.do === "cut")?.products ?? [];
  return (
    <section className={classes.marks}>
      <h3>Marks, all from one edge</h3>
      {cut.rows.slice(0, 8).map((row) => (
        <div key={`${row.product} ${row.from_mm}`}>
          <b>
            {products[row.product]?.name}, {say("length", row.from_mm)} to{" "}
            {say("length", row.to_mm)}
          </b>
          {edgesOf(row).map(({ name, edge }) => (
            <p key={name}>
              {name}: {edge.along_mm.map((at) => figure("length", Math.round(at))).join(" · ")}
            </p>
          ))}
        </div>
      ))}
    </section>
  );
}
