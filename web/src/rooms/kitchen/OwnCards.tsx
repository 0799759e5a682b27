import { Button, FileButton, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useContext, useRef, useState } from "react";
import { type Schemas, sendFile } from "@/api/client";
import { sentence } from "@/api/queries";
import { useTrade } from "@/api/trade";
import { OwnStepDrawing, PIECE, pictureAt } from "@/finish/OwnCardView";
import { Choice } from "@/measures/Choice";
import { FaultsContext } from "@/measures/faults";
import { MeasureInput } from "@/measures/MeasureInput";
import { freeKey } from "./freeKey";
import classes from "./KitchenRoom.module.css";
import { OwnRow, useOwn, type Writing } from "./own";

type Card = Schemas["OwnCard"];
type Line = Schemas["CardLine"];

const MOST_STEPS = 8;

interface Props {
  own: Card[];
  keep: (cards: Card[]) => void;
}

const EMPTY: Omit<Card, "key"> = {
  name: "My shape",
  steps: ["Fold it across the middle."],
  lines: [],
  seal: "",
  length_mm: null,
  width_mm: null,
  thickness_mm: null,
  pictures: [],
};

/** What belongs to a card's steps, without what belongs to step `n`; the later ones move up by one. */
export function without<T extends { step: number }>(of: T[], n: number): T[] {
  return of.filter((o) => o.step !== n).map((o) => (o.step > n ? { ...o, step: o.step - 1 } : o));
}

/** This bakery's own shaping cards. */
export function OwnCards({ own, keep }: Props) {
  const { writing, begin, change, remove } = useOwn(own, keep);
  const file = useRef<HTMLInputElement>(null);
  const fromFile = useMutation({
    mutationFn: (chosen: File) => sendFile<Card>("/api/cards/file", chosen),
    onSuccess: (card) => keep([...own, { ...card, key: freeKey(card.name, own) }]),
  });
  return (
    <fieldset className={classes.group}>
      <legend>Your own shaping cards</legend>
      {own.map((card, i) => (
        <OwnRow key={card.key} name={card.name} change={() => change(i)} remove={() => remove(i)}>
          {card.steps.length} {card.steps.length === 1 ? "step" : "steps"} ·{" "}
          <a href={`/api/cards/${encodeURIComponent(card.key)}/file`} download>
            Download as a file
          </a>
        </OwnRow>
      ))}
      {writing ? (
        <CardForm {...writing} />
      ) : (
        <div className={classes.buttons}>
          <Button
            variant="default"
            onClick={() => begin({ key: freeKey(EMPTY.name, own), ...EMPTY })}
          >
            Make a card
          </Button>
          <Button variant="default" onClick={() => file.current?.click()}>
            A card from a file
          </Button>
          {fromFile.isError && (
            <p role="alert" className="bar mind">
              {sentence(fromFile.error)}
            </p>
          )}
          <input
            ref={file}
            type="file"
            accept=".json,application/json"
            hidden
            aria-label="A card from a file"
            onChange={(e) => {
              const [chosen] = e.currentTarget.files ?? [];
              if (chosen) fromFile.mutate(chosen);
              e.currentTarget.value = "";
            }}
          />
        </div>
      )}
    </fieldset>
  );
}

/** A card's name, its steps with their drawings, and the size it comes to. */
function CardForm({ at, what: card, kept, change, keep, close }: Writing<Card>) {
  const faults = useContext(FaultsContext);
  const path = `cards[${at}]`;
  const size = (label: string, name: "length_mm" | "width_mm" | "thickness_mm") => (
    <MeasureInput
      label={label}
      quantity="length"
      path={`${path}.${name}`}
      value={card[name]}
      emptyMeans="as cut"
      onChange={(v) => change({ ...card, [name]: v })}
    />
  );
  return (
    <form
      className={classes.form}
      aria-label="A shaping card of your own"
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <TextInput
        label="Name"
        maxLength={60}
        value={card.name}
        error={faults[`${path}.name`]}
        onChange={(e) => change({ ...card, name: e.currentTarget.value })}
      />
      {card.steps.map((text, n) => (
        <StepInput
          // biome-ignore lint/suspicious/noArrayIndexKey: steps have no identity but their place
          key={n}
          n={n}
          text={text}
          fault={faults[`${path}.steps[${n}]`]}
          lines={card.lines.filter((line) => line.step === n)}
          say={(words) => change({ ...card, steps: card.steps.with(n, words) })}
          draw={(lines) =>
            change({ ...card, lines: [...card.lines.filter((l) => l.step !== n), ...lines] })
          }
          picture={card.pictures.find((p) => p.step === n)?.picture}
          show={(picture) =>
            change({
              ...card,
              pictures: [
                ...card.pictures.filter((p) => p.step !== n),
                ...(picture ? [{ step: n, picture }] : []),
              ],
            })
          }
          remove={
            card.steps.length > 1
              ? () =>
                  change({
                    ...card,
                    steps: card.steps.toSpliced(n, 1),
                    lines: without(card.lines, n),
                    pictures: without(card.pictures, n),
                  })
              : undefined
          }
        />
      ))}
      {card.steps.length < MOST_STEPS && (
        <Button
          variant="default"
          size="xs"
          onClick={() => change({ ...card, steps: [...card.steps, "Then …"] })}
        >
          Another step
        </Button>
      )}
      <TextInput
        label="Where wash may seal"
        maxLength={200}
        value={card.seal}
        error={faults[`${path}.seal`]}
        onChange={(e) => change({ ...card, seal: e.currentTarget.value })}
      />
      <div className={classes.parts}>
        {size("Shaped, long", "length_mm")}
        {size("wide", "width_mm")}
        {size("high", "thickness_mm")}
      </div>
      <div className={classes.buttons}>
        <Button type="submit" disabled={kept}>
          {kept ? "Saved" : "Save"}
        </Button>
        <Button variant="default" onClick={close}>
          Close
        </Button>
      </div>
    </form>
  );
}

/** Lines one often wants, each with one press: from and to, % of the piece. */
const READY: [string, Line["part"], number, number, number, number][] = [
  ["Fold across", "fold", 0, 50, 100, 50],
  ["Fold along", "fold", 50, 0, 50, 100],
  ["Fold corner to corner", "fold", 0, 0, 100, 100],
  ["Cut from a corner", "cut", 0, 0, 33, 33],
  ["Cut in the middle", "cut", 50, 25, 50, 75],
  ["Roll away from you", "arrow", 50, 90, 50, 20],
];

/** Where on the piece of a drawing somebody pressed, %. */
function placeIn(e: React.PointerEvent<SVGSVGElement>) {
  const box = e.currentTarget.getBoundingClientRect();
  const pct = (share: number) => Math.round(100 * Math.min(Math.max(share, 0), 1));
  return {
    x: pct((((e.clientX - box.left) / box.width) * 120 - PIECE.x) / PIECE.width),
    y: pct((((e.clientY - box.top) / box.height) * 80 - PIECE.y) / PIECE.height),
  };
}

interface StepProps {
  n: number;
  text: string;
  fault?: string;
  lines: Line[];
  say: (text: string) => void;
  draw: (lines: Line[]) => void;
  /** The picture of this step, by the name it is kept under. */
  picture?: string;
  show: (picture: string | null) => void;
  remove?: () => void;
}

function StepInput({ n, text, fault, lines, say, draw, picture, show, remove }: StepProps) {
  const taken = useMutation({
    mutationFn: (file: File) => sendFile<{ picture: string }>("/api/cards/pictures", file),
    onSuccess: (kept) => show(kept.picture),
  });
  const { options } = useTrade();
  const [part, setPart] = useState<Line["part"]>("fold");
  const [from, setFrom] = useState<{ x: number; y: number } | null>(null);
  const press = (at: { x: number; y: number }) => {
    if (!from) {
      setFrom(at);
      return;
    }
    draw([...lines, { step: n, part, from_x: from.x, from_y: from.y, to_x: at.x, to_y: at.y }]);
    setFrom(null);
  };
  return (
    <div className={classes.cardStep}>
      <TextInput
        label={`Step ${n + 1}`}
        maxLength={200}
        value={text}
        error={fault}
        onChange={(e) => say(e.currentTarget.value)}
      />
      <Choice
        label={from ? "Now press where it ends" : "Press on the piece where it begins"}
        tight
        value={part}
        options={options<Line["part"]>("part")}
        onChange={setPart}
      />
      <svg
        viewBox="0 0 120 80"
        role="img"
        aria-label={`Step ${n + 1}: ${lines.length} ${lines.length === 1 ? "line" : "lines"} drawn`}
        className={classes.cardDrawing}
        onPointerDown={(e) => press(placeIn(e))}
      >
        <OwnStepDrawing lines={lines} />
        {from && (
          <circle
            cx={PIECE.x + (PIECE.width * from.x) / 100}
            cy={PIECE.y + (PIECE.height * from.y) / 100}
            r={2.4}
            fill="var(--crust)"
          />
        )}
      </svg>
      {picture && (
        <img
          className={classes.cardPicture}
          src={pictureAt(picture)}
          alt={`Taken of step ${n + 1}`}
        />
      )}
      {taken.isError && (
        <p role="alert" className="bar mind">
          {sentence(taken.error)}
        </p>
      )}
      <div className={classes.buttons}>
        <FileButton accept="image/jpeg,image/png,image/webp" onChange={(f) => f && taken.mutate(f)}>
          {(props) => (
            <Button variant="default" size="xs" loading={taken.isPending} {...props}>
              {picture ? "Another picture" : "Take a picture"}
            </Button>
          )}
        </FileButton>
        {picture && (
          <Button variant="default" size="xs" onClick={() => show(null)}>
            Remove the picture
          </Button>
        )}
        {READY.map(([label, kind, from_x, from_y, to_x, to_y]) => (
          <Button
            key={label}
            variant="default"
            size="xs"
            onClick={() => draw([...lines, { step: n, part: kind, from_x, from_y, to_x, to_y }])}
          >
            {label}
          </Button>
        ))}
        <Button
          variant="default"
          size="xs"
          disabled={lines.length === 0}
          onClick={() => draw(lines.slice(0, -1))}
        >
          Remove the last line
        </Button>
        {remove && (
          <Button variant="default" size="xs" onClick={remove}>
            No step {n + 1}
          </Button>
        )}
      </div>
    </div>
  );
}
