/** The bakehouse from above, to scale: what stands in it is chosen, moved and sized there. */
import { Button } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, type PointerEvent, useContext, useState } from "react";
import { Link } from "react-router";
import { api, byField, got, type Schemas } from "@/api/client";
import { sentence } from "@/api/queries";
import { Hands } from "@/drawings/Handle";
import { type Grip, linear, useHand } from "@/drawings/hands";
import { type By, useDrag } from "@/drawings/useDrag";
import { FaultsContext } from "@/measures/faults";
import { useSaying } from "@/measures/likes";
import { RowInput } from "@/measures/RowInput";
import { capital } from "@/measures/words";
import { ButterShelf, type Butters } from "./ButterShelf";
import { Front } from "./Front";
import classes from "./RoomPlan.module.css";
import { type Drawn, Thing } from "./Thing";

type Fixture = Schemas["Furnished"];
type Row = Schemas["Default"];
type Spot = Schemas["Spot"];

interface Props {
  room: Schemas["Room"];
  table: Row[];
  yours: Record<string, number>;
  readOnly: boolean;
  keep: (yours: Record<string, number>) => void;
  place: (spots: Spot[]) => void;
  butters: Butters;
}

const FEW = 4; // rows that stand at once; the others one press away
const STEP_MM = 100;
const GRID_MM = 50;

const spotOf = ({ what, x_mm, y_mm, turned }: Fixture): Spot => ({ what, x_mm, y_mm, turned });

export function RoomPlan({ room, table, yours, readOnly, keep, place, butters }: Props) {
  const { ref, width } = useElementSize();
  const [chosen, choose] = useState<string>("bench");
  // What is tried here is drawn at once and kept when it is said so.
  const [tried, setTried] = useState<Record<string, number>>({});
  const hand = useHand();
  const rows = new Map(table.map((r) => [r.key, r]));
  const value = (key: string) => tried[key] ?? rows.get(key)?.value ?? 0;
  const wide = Math.max(width, 300);
  const scale = (wide - 24) / room.length_mm;
  const high = room.width_mm * scale + 24;
  const px = (mm: number) => 12 + mm * scale;

  const put = (what: string, to: Partial<Spot>) =>
    place(room.things.map((t) => (t.what === what ? { ...spotOf(t), ...to } : spotOf(t))));
  // the room grows behind what stands at its wall
  const wall = (mm: number, most: number) =>
    Math.min(Math.max(Math.round(mm / GRID_MM) * GRID_MM, 0), most);
  const within = ({ what }: Fixture, x: number, y: number) => ({
    what,
    x_mm: wall(x, room.length_mm),
    y_mm: wall(y, room.width_mm),
  });

  const movedTo = (t: Fixture, by: By) => within(t, t.x_mm + by.x / scale, t.y_mm + by.y / scale);
  const moving = useDrag<Fixture>({
    slack: 3,
    drop: (t, by) => {
      const { x_mm, y_mm } = movedTo(t, by);
      put(t.what, { x_mm, y_mm });
    },
  });
  const things = room.things.map((t) => {
    const sized = sizeNow(t, tried, (key) => rows.get(key)?.value ?? 0);
    const { dragged } = moving;
    return dragged?.what.what === t.what
      ? { ...sized, ...movedTo(dragged.what, dragged.by), what: t.what }
      : sized;
  });
  const thing = things.find((t) => t.what === chosen);
  const handlers = (t: Fixture) => ({
    ...moving.hold(t),
    onPointerDown: (e: PointerEvent<SVGGElement>) => {
      choose(t.what);
      if (!readOnly) moving.hold(t).onPointerDown(e);
    },
    onKeyDown: (e: KeyboardEvent) => {
      const by = {
        ArrowRight: [STEP_MM, 0],
        ArrowLeft: [-STEP_MM, 0],
        ArrowDown: [0, STEP_MM],
        ArrowUp: [0, -STEP_MM],
      }[e.key];
      if (e.key === "Enter" || e.key === " ") choose(t.what);
      else if (by && !readOnly) {
        const { x_mm, y_mm } = within(t, t.x_mm + (by[0] ?? 0), t.y_mm + (by[1] ?? 0));
        put(t.what, { x_mm, y_mm });
      } else return;
      e.preventDefault();
    },
  });
  const tryOut = (key: string, v: number) =>
    setTried((now) => {
      const { [key]: _, ...rest } = now;
      return v === rows.get(key)?.value ? rest : { ...rest, [key]: v };
    });
  const grips = thing && !readOnly ? edges(thing, value, tryOut, rows) : [];
  return (
    <section className={classes.plan} aria-label="The bakehouse">
      <div
        ref={ref}
        className={`drawing ${classes.room}`}
        style={{ height: high, "--ratio": room.length_mm / room.width_mm } as React.CSSProperties}
      >
        {/* biome-ignore lint/a11y/useSemanticElements: a drawing has no fieldset */}
        <svg
          width={wide}
          height={high}
          viewBox={`0 0 ${wide} ${high}`}
          role="group"
          aria-label="The bakehouse from above, to scale"
        >
          <rect
            className={classes.floor}
            x={12}
            y={12}
            width={room.length_mm * scale}
            height={room.width_mm * scale}
          />
          {things.map((t) => (
            <Thing
              key={t.what}
              thing={t}
              scale={scale}
              x={px(t.x_mm)}
              y={px(t.y_mm)}
              chosen={t.what === chosen}
              handlers={handlers(t)}
            />
          ))}
        </svg>
        {thing && (
          <Hands
            {...{ grips, hand, wide, high }}
            x={(mm) => px(thing.x_mm + mm)}
            y={(mm) => px(thing.y_mm + mm)}
          />
        )}
      </div>
      {thing && (
        <ThingPanel
          key={thing.what}
          thing={thing}
          rows={thing.rows.flatMap((key) => rows.get(key) ?? [])}
          tried={tried}
          yours={yours}
          readOnly={readOnly}
          set={tryOut}
          butters={butters}
          turn={() => put(thing.what, { turned: !thing.turned })}
          leave={() => setTried({})}
          keep={() => {
            keep({ ...yours, ...tried });
            setTried({});
          }}
        />
      )}
    </section>
  );
}

/** A thing at the size that is tried: its first two rows are its sides. */
function sizeNow(t: Fixture, tried: Record<string, number>, kept: (key: string) => number): Drawn {
  const more = (key = "") => (key in tried ? (tried[key] ?? 0) - kept(key) : 0);
  const [along, across] = [more(t.rows[0]), more(t.rows[1])];
  return {
    ...t,
    length_mm: t.length_mm + (t.turned ? across : along),
    width_mm: t.width_mm + (t.turned ? along : across),
  };
}

/** The edges of a thing that has sides among its rows: its length and its width. */
function edges(
  t: Drawn,
  value: (key: string) => number,
  put: (key: string, v: number) => void,
  rows: Map<string, Row>,
): Grip[] {
  return t.rows.slice(0, t.sized ? 2 : 0).flatMap((key, i): Grip[] => {
    const row = rows.get(key);
    if (row?.unit !== "mm" || !/length|width|longest/.test(key)) return [];
    const along = (i === 0) !== t.turned;
    const [side, across] = along ? [t.length_mm, t.width_mm] : [t.width_mm, t.length_mm];
    return [
      {
        path: `yours.${key}`,
        label: capital(row.label),
        quantity: "length",
        value: value(key),
        limits: [row.low, row.high],
        dir: along ? "x" : "y",
        // a machine is somewhat larger than what goes into it
        ...linear(side - value(key), 1),
        from: 0,
        to: across,
        put: (v) => put(key, v),
      },
    ];
  });
}

interface PanelProps {
  thing: Drawn;
  rows: Row[];
  tried: Record<string, number>;
  yours: Record<string, number>;
  readOnly: boolean;
  butters: Butters;
  set: (key: string, value: number) => void;
  turn: () => void;
  keep: () => void;
  leave: () => void;
}

/** The few values of a thing, where they come from, and what a change of them would change. */
function ThingPanel({
  thing,
  rows,
  tried,
  yours,
  readOnly,
  butters,
  set,
  turn,
  keep,
  leave,
}: PanelProps) {
  const { words } = useSaying();
  const [all, setAll] = useState(false);
  const would = Object.keys(tried).length > 0;
  const standing = rows.slice(0, all ? rows.length : FEW);
  const holds = rows.find((r) => r.key === thing.holds);
  const affected = useQuery({
    queryKey: ["affected", yours, tried],
    queryFn: ({ signal }) =>
      got(api.POST("/api/plans/affected", { body: { yours: { ...yours, ...tried } }, signal })),
    enabled: would,
    staleTime: Number.POSITIVE_INFINITY,
  });
  // what cannot be is said beside its field, before anybody changes it
  const refused = byField(affected.error);
  const faults = { ...useContext(FaultsContext), ...refused };
  return (
    <div className={classes.panel}>
      <h2>
        {thing.said} {thing.many > 1 && <small className="quiet">{thing.many} of them</small>}
      </h2>
      {thing.what === "butters" && <ButterShelf {...butters} readOnly={readOnly} />}
      <form aria-label={`${thing.said}: values`} onSubmit={(e) => e.preventDefault()}>
        {!thing.there && (
          <p className="quiet">There is none yet. Give it a width, and it stands here.</p>
        )}
        {holds && (
          <Front
            key={holds.key}
            label={holds.label}
            path={`yours.${holds.key}`}
            value={tried[holds.key] ?? holds.value}
            kept={holds.value}
            limits={[holds.low, holds.high]}
            cold={thing.what === "fridge" || thing.what === "freezer"}
            put={readOnly ? undefined : (v) => set(holds.key, v)}
          />
        )}
        <FaultsContext.Provider value={faults}>
          <fieldset disabled={readOnly} className={classes.rows}>
            {standing.map((row) => (
              <RowInput
                key={row.key}
                row={{
                  ...row,
                  value: tried[row.key] ?? row.value,
                  origin: row.key in tried ? "tried" : row.origin,
                }}
                set={set}
              />
            ))}
          </fieldset>
        </FaultsContext.Provider>
        {rows.length > FEW && (
          <Button variant="subtle" size="xs" color="dark" onClick={() => setAll(!all)}>
            {all ? "Fewer" : `${rows.length - FEW} more`}
          </Button>
        )}
        {would ? (
          <div className={classes.would} role="status">
            <h3>Before you change it</h3>
            {affected.isPending && <p className="quiet">Every plan is being worked.</p>}
            {affected.data?.length === 0 && <p>No plan’s sheets, pieces or butter change.</p>}
            {affected.data?.map((plan) => (
              <p key={plan.id}>
                <Link to={`/plans/${plan.id}`}>{plan.name}</Link>
                {plan.says.map((text) => (
                  <span key={text}>{words(text)} </span>
                ))}
              </p>
            ))}
            {affected.isError && !standing.some((row) => `yours.${row.key}` in refused) && (
              <p role="alert">{sentence(affected.error)}</p>
            )}
            <Button onClick={keep} disabled={Object.keys(refused).length > 0}>
              Change it
            </Button>{" "}
            <Button variant="default" onClick={leave}>
              Leave it
            </Button>
          </div>
        ) : (
          !readOnly && (
            <Button variant="default" size="xs" onClick={turn}>
              Turn it by a quarter
            </Button>
          )
        )}
      </form>
    </div>
  );
}
