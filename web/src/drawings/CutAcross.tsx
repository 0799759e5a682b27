/** The sheet cut along a line: every leaf that lies there, and a loupe down to micrometres. */
import { Slider } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import classes from "./CutAcross.module.css";
import { Dimension } from "./Dimension";

type Section = Schemas["LineSection"];
type Stack = Schemas["DrawnStack"];

interface Props {
  section: Section;
  /** The same line again where the loupe is, when the whole is too fine to list. */
  near?: Section;
  /** Where the loupe is, shares of length and height from the lower left. */
  at: { x: number; y: number };
  move: (to: { x: number; y: number }) => void;
  /** What chooses the line. */
  children: ReactNode;
}

const PAD = { left: 66, right: 14, top: 32, bottom: 14 };
const LOUPE = 82;
const ZOOMS = [0.25, 0.5, 1, 2, 4];

const STEPS: Record<string, [number, number]> = {
  ArrowLeft: [-0.01, 0],
  ArrowRight: [0.01, 0],
  ArrowUp: [0, 0.02],
  ArrowDown: [0, -0.02],
};
const clamp = (share: number) => Math.min(Math.max(share, 0), 1);

export const stackUnder = (section: Section, x_mm: number): Stack | undefined => {
  const column = section.columns.find((c) => x_mm <= c.to_mm) ?? section.columns.at(-1);
  return column && section.stacks[column.stack];
};

/** Paints one stack's leaves between two x, heights given by `y` from µm. */
function paint(
  pen: CanvasRenderingContext2D,
  stack: Stack,
  [x0, x1]: [number, number],
  y: (um: number) => number,
  inks: Record<"butter" | "dough", string>,
) {
  pen.fillStyle = inks.dough;
  pen.fillRect(x0, y(stack.height_um), x1 - x0, y(0) - y(stack.height_um));
  pen.fillStyle = inks.butter;
  if (!stack.leaves_um.length) {
    pen.globalAlpha = stack.butter_pct / 100;
    pen.fillRect(x0, y(stack.height_um), x1 - x0, y(0) - y(stack.height_um));
    pen.globalAlpha = 1;
    return;
  }
  let from = stack.from_um;
  for (const [i, um] of stack.leaves_um.entries()) {
    if ((stack.bottom === "butter") === (i % 2 === 0)) {
      pen.fillRect(x0, y(from + um), x1 - x0, y(from) - y(from + um));
    }
    from += um;
  }
}

export function CutAcross({ section, near, at, move, children }: Props) {
  const { ref, width, height } = useElementSize();
  const { say, leaf } = useSaying();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [zoom, setZoom] = useState(2);
  const [wide, high] = [Math.max(width, 260), Math.max(height, 180)];
  const body = {
    x: PAD.left,
    y: PAD.top,
    w: wide - PAD.left - PAD.right,
    h: Math.min(high - PAD.top - PAD.bottom, 280),
  };
  // on a low screen the loupe is no higher than the sheet
  const lens = Math.min(LOUPE, body.h / 2 - 2);
  const here = at.x * section.length_mm;
  const stack = stackUnder(section, here);
  const fine = stack && !stack.leaves_um.length && near ? stackUnder(near, here) : stack;
  // Three of the loupe's leaves fill its height at the middle of its steps.
  const leaves = stack ? stack.butter + stack.dough : 1;
  const pxPerUm = ((2 * lens) / ((6 * (stack?.height_um ?? 1)) / leaves)) * (ZOOMS[zoom] as number);

  useEffect(() => {
    const pen = canvas.current?.getContext("2d");
    if (!pen || !stack || !fine) return;
    const dense = window.devicePixelRatio || 1;
    pen.canvas.width = wide * dense;
    pen.canvas.height = high * dense;
    pen.setTransform(dense, 0, 0, dense, 0, 0);
    pen.clearRect(0, 0, wide, high);
    const style = getComputedStyle(pen.canvas);
    const ink = (name: string) => style.getPropertyValue(`--${name}`).trim();
    const inks = { butter: ink("butter"), dough: ink("dough") };
    const px = (mm: number) => body.x + (mm / section.length_mm) * body.w;
    const py = (um: number) => body.y + body.h - (um / section.height_um) * body.h;
    for (const column of section.columns) {
      const its = section.stacks[column.stack] as Stack;
      // a hair over its neighbour, so that no seam of paper shows between them
      const [x0, x1] = [px(column.from_mm), Math.min(px(column.to_mm) + 0.6, body.x + body.w)];
      paint(pen, its, [x0, x1], py, inks);
      if (its.bent) {
        pen.fillStyle = ink("ink");
        pen.fillRect(x0, body.y + body.h + 3, x1 - x0, 3);
      }
    }
    pen.strokeStyle = ink("dough-edge");
    pen.strokeRect(body.x, body.y, body.w, body.h);
    // the loupe
    const eye = { x: px(here), y: body.y + body.h * (1 - at.y) };
    const centre = {
      x: Math.min(Math.max(eye.x, lens + 6), wide - lens - 6),
      y: Math.min(Math.max(eye.y, lens + 6), high - lens - 6),
    };
    pen.save();
    pen.beginPath();
    pen.arc(centre.x, centre.y, lens, 0, 2 * Math.PI);
    pen.fillStyle = ink("surface");
    pen.fill();
    pen.clip();
    const middle = at.y * section.height_um;
    paint(
      pen,
      fine,
      [centre.x - lens, centre.x + lens],
      (um) => centre.y - (um - middle) * pxPerUm,
      inks,
    );
    pen.restore();
    pen.lineWidth = 2;
    pen.strokeStyle = ink("ink");
    pen.beginPath();
    pen.arc(centre.x, centre.y, lens, 0, 2 * Math.PI);
    pen.stroke();
    const bar = scaleBar(pxPerUm, lens);
    pen.fillStyle = ink("ink");
    pen.fillRect(centre.x - (bar * pxPerUm) / 2, centre.y + lens * 0.62, bar * pxPerUm, 2.5);
  });

  const bar = scaleBar(pxPerUm, lens);
  const words = stack
    ? `${stack.butter} butter and ${stack.dough} dough leaves ${say("length", Math.round(here))} from the left${stack.bent ? ", bent by a closed edge" : ""}, in ${leaf(stack.height_um)}.`
    : "";
  const go = (e: React.PointerEvent) => {
    const box = e.currentTarget.getBoundingClientRect();
    move({
      x: clamp((e.clientX - box.left - body.x) / body.w),
      y: clamp(1 - (e.clientY - box.top - body.y) / body.h),
    });
  };
  return (
    <>
      <div className={`drawing ${classes.stage}`} ref={ref}>
        <canvas
          ref={canvas}
          role="img"
          aria-label={`The sheet cut along the line, heights stretched. ${words}`}
          style={{ width: wide, height: high }}
          tabIndex={0}
          onKeyDown={(e) => {
            const by = STEPS[e.key];
            if (!by) return;
            e.preventDefault();
            move({ x: clamp(at.x + by[0]), y: clamp(at.y + by[1]) });
          }}
          onPointerDown={go}
          onPointerMove={(e) => (e.pointerType === "mouse" || e.buttons ? go(e) : undefined)}
        />
        <svg className={classes.measures} width={wide} height={high} aria-hidden="true">
          <Dimension
            from={body.y}
            to={body.y + body.h}
            at={body.x - 20}
            text={leaf(section.height_um)}
            upright
          />
          <Dimension
            from={body.x}
            to={body.x + body.w}
            at={body.y - 16}
            text={say("length", Math.round(section.length_mm))}
          />
        </svg>
      </div>
      <p className={classes.said} aria-live="polite">
        {words} The bar in the loupe is {leaf(bar)}
        {section.stacks.some((s) => s.bent) && "; dark lines below mark bends"}.
      </p>
      <div className={classes.ways}>
        {children}
        <span id="loupeNear">closer</span>
        <Slider
          size="lg"
          min={0}
          max={ZOOMS.length - 1}
          value={zoom}
          label={null}
          thumbProps={{ "aria-labelledby": "loupeNear" }}
          onChange={setZoom}
        />
      </div>
    </>
  );
}

/** A round number of µm that is a third of the loupe or a little less. */
export function scaleBar(pxPerUm: number, lens = LOUPE): number {
  const most = (lens * 0.7) / pxPerUm;
  const power = 10 ** Math.floor(Math.log10(most));
  return ([5, 2, 1].find((n) => n * power <= most) ?? 1) * power;
}
