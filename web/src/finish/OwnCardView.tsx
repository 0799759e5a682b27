/** A baker's own shaping card: her steps, each with the lines she drew on the piece. */
import type { Schemas } from "@/api/client";
import classes from "./Finish.module.css";

type Line = Schemas["CardLine"];

/** The piece in a drawing of 120 × 80. */
export const PIECE = { x: 20, y: 8, width: 80, height: 64 };

/** Where a picture of a card is seen. */
export const pictureAt = (picture: string) => `/api/cards/pictures/${picture}.jpg`;

const DASHES: Record<Line["part"], string | undefined> = {
  fold: "5 4",
  cut: undefined,
  arrow: undefined,
};

/** One step: the piece, and what is folded, cut and moved on it. */
export function OwnStepDrawing({ lines }: { lines: Line[] }) {
  const x = (pct: number) => PIECE.x + (PIECE.width * pct) / 100;
  const y = (pct: number) => PIECE.y + (PIECE.height * pct) / 100;
  return (
    <>
      <defs>
        <marker
          id="own-goes"
          viewBox="0 0 8 8"
          refX="6"
          refY="4"
          markerWidth="8"
          markerHeight="8"
          orient="auto"
        >
          <path d="M0,0 L8,4 L0,8" fill="none" stroke="#8b4a20" />
        </marker>
      </defs>
      <rect {...PIECE} fill="var(--dough)" stroke="var(--dough-edge)" strokeWidth={1.5} />
      {lines.map((line) => (
        <path
          key={`${line.part} ${line.from_x} ${line.from_y} ${line.to_x} ${line.to_y}`}
          d={`M${x(line.from_x)},${y(line.from_y)} L${x(line.to_x)},${y(line.to_y)}`}
          fill="none"
          stroke={line.part === "arrow" ? "#8b4a20" : "#2b2420"}
          strokeWidth={line.part === "arrow" ? 1.8 : 1.4}
          strokeDasharray={DASHES[line.part]}
          markerEnd={line.part === "arrow" ? "url(#own-goes)" : undefined}
        />
      ))}
    </>
  );
}

export function OwnCardView({ card }: { card: Schemas["OwnCard"] }) {
  return (
    <div className={classes.card}>
      <ol className={classes.steps}>
        {card.steps.map((text, n) => {
          const lines = card.lines.filter((line) => line.step === n);
          const shown = card.pictures.find((p) => p.step === n);
          return (
            <li key={text}>
              {shown && <img src={pictureAt(shown.picture)} alt="" />}
              {(lines.length > 0 || !shown) && (
                <svg viewBox="0 0 120 80" aria-hidden="true">
                  <OwnStepDrawing lines={lines} />
                </svg>
              )}
              <b>{n + 1}</b> {text}
            </li>
          );
        })}
      </ol>
      {card.seal && <p className={classes.said}>{card.seal}</p>}
    </div>
  );
}
