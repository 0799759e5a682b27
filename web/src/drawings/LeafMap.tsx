/** Where the leaves are: the last sheet from above, the more butter leaves the yellower. */
import { useElementSize } from "@mantine/hooks";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { useSaying } from "@/measures/likes";
import { Dimension } from "./Dimension";
import classes from "./LeafMap.module.css";
import { outlineKey, outlinePath } from "./views";

const POOR_PCT = 75;
const MOST_REGIONS = 6;

interface Props {
  sheet: Schemas["Size"];
  map: Schemas["CoverageMap"];
  layers: Schemas["Layers"];
  cut?: Schemas["CutFigures"] | null;
  /** The place whose stack is drawn beside, shares of length and width. */
  place: { x: number; y: number };
  look: (x: number, y: number) => void;
}

const share = (pct: number) => (pct >= 9.95 || pct < 0.05 ? pct.toFixed(0) : pct.toFixed(1));

export function LeafMap({ sheet, map, layers, cut, place: eye, look }: Props) {
  const { ref, width, height } = useElementSize();
  const { say } = useSaying();
  const [asked, setAsked] = useState<number | null>(null);
  const [wide, high] = [Math.max(width, 240), Math.max(height, 200)];
  const [left, top, right, bottom] = [92, 36, 12, 12];
  const scale = Math.min(
    (wide - left - right) / sheet.length_mm,
    (high - top - bottom) / sheet.width_mm,
  );
  const px = (mm: number) => mm * scale;
  const x0 = left + (wide - left - right - px(sheet.length_mm)) / 2;
  const y0 = top + (high - top - bottom - px(sheet.width_mm)) / 2;
  const most = map.regions[0]?.butter || 1;
  // Steeper than the count, so that a tenth missing is seen.
  const yellow = (butter: number) => 100 * (butter / most) ** 1.6;
  const fill = (region: Schemas["Region"]) =>
    `color-mix(in srgb, var(--butter) ${yellow(region.butter).toFixed(0)}%, var(--dough))`;
  const poor = cut?.full_pct.filter((pct) => pct < POOR_PCT).length ?? 0;
  const region = asked === null ? null : map.regions[asked];
  const words = `${share(layers.full_pct)} % of the sheet has all ${layers.butter} butter layers, ${share(100 - layers.full_pct - layers.bare_pct)} % has fewer, ${share(layers.bare_pct)} % has none; ${share(layers.bent_pct)} % lies in bends.`;
  return (
    <>
      <div className="drawing" ref={ref} style={{ minHeight: 180 }}>
        <svg
          width={wide}
          height={high}
          role="img"
          aria-label={`Map of the leaves. ${words}`}
          onPointerDown={(e) => {
            const box = e.currentTarget.getBoundingClientRect();
            const x = (e.clientX - box.left - x0) / px(sheet.length_mm);
            const y = (e.clientY - box.top - y0) / px(sheet.width_mm);
            if (x >= 0 && x <= 1 && y >= 0 && y <= 1) look(x, y);
          }}
        >
          <defs>
            <pattern id="bent" width="7" height="7" patternUnits="userSpaceOnUse">
              <path d="M0,7 L7,0" stroke="#2b2420" strokeWidth={0.9} opacity={0.55} />
            </pattern>
          </defs>
          {map.cells.map((column, i) =>
            column.map((n, j) => {
              const place = map.regions[n] as Schemas["Region"];
              const x = map.xs_mm[i] as number;
              const y = map.ys_mm[j] as number;
              const box = {
                x: x0 + px(x),
                y: y0 + px(y),
                width: px((map.xs_mm[i + 1] as number) - x),
                height: px((map.ys_mm[j + 1] as number) - y),
              };
              return (
                // biome-ignore lint/a11y/noStaticElementInteractions: the list below says the same
                <g key={`${x} ${y}`} onPointerEnter={() => setAsked(n)} onClick={() => setAsked(n)}>
                  <rect {...box} fill={fill(place)} stroke={fill(place)} strokeWidth={0.5} />
                  {place.bent && <rect {...box} fill="url(#bent)" />}
                  {n === asked && <rect {...box} fill="#2b2420" opacity={0.14} />}
                </g>
              );
            }),
          )}
          {cut?.outlines.map((outline, n) => {
            const weak = (cut.full_pct[n] ?? 100) < POOR_PCT;
            return (
              <path
                key={outlineKey(outline)}
                d={outlinePath(
                  outline,
                  (mm) => x0 + px(mm),
                  (mm) => y0 + px(mm),
                )}
                fill="none"
                pointerEvents="none"
                stroke={weak ? "var(--mind)" : "#2b2420"}
                strokeWidth={weak ? 2.2 : 0.8}
                strokeDasharray={weak ? "5 3" : undefined}
              />
            );
          })}
          <rect
            x={x0}
            y={y0}
            width={px(sheet.length_mm)}
            height={px(sheet.width_mm)}
            fill="none"
            stroke="var(--dough-edge)"
            strokeWidth={1.5}
            pointerEvents="none"
          />
          <g
            transform={`translate(${x0 + px(sheet.length_mm) * eye.x} ${y0 + px(sheet.width_mm) * eye.y})`}
            fill="none"
            stroke="#2b2420"
            strokeWidth={1.6}
            pointerEvents="none"
          >
            <circle r={7} />
            <path d="M-13,0 H-3 M3,0 H13 M0,-13 V-3 M0,3 V13" />
          </g>
          <Dimension
            from={x0}
            to={x0 + px(sheet.length_mm)}
            at={y0 - 20}
            text={say("length", Math.round(sheet.length_mm))}
          />
          <Dimension
            from={y0}
            to={y0 + px(sheet.width_mm)}
            at={x0 - 22}
            text={say("length", Math.round(sheet.width_mm))}
            upright
          />
        </svg>
      </div>
      <p className={classes.said} aria-live="polite">
        {region ? (
          <>
            <b>
              {region.butter} butter {region.butter === 1 ? "layer" : "layers"}
            </b>
            {region.bent && ", bent by a closed edge"} on {share(region.share_pct)} % of the sheet
          </>
        ) : (
          words
        )}
        {poor > 0 && (
          <b className={classes.poor}>
            {" "}
            {poor} {poor === 1 ? "piece lies" : "pieces lie"} in poor dough (dashed): less than{" "}
            {POOR_PCT} % of each has every layer.
          </b>
        )}
      </p>
      <ul className={classes.legend}>
        {map.regions.slice(0, MOST_REGIONS).map((r, n) => (
          <li key={`${r.butter}${r.bent}`}>
            <button type="button" onClick={() => setAsked(n)} aria-pressed={n === asked}>
              <i style={{ background: fill(r) }} data-bent={r.bent || undefined} />
              {r.butter}
              {r.bent && " bent"} <b>{share(r.share_pct)} %</b>
            </button>
          </li>
        ))}
        {map.regions.length > MOST_REGIONS && (
          <li className="quiet">and {map.regions.length - MOST_REGIONS} more</li>
        )}
      </ul>
    </>
  );
}
