/** The marks of the cut as a list to read at the bench: every one measured from the datum. */
import { NativeSelect } from "@mantine/core";
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { stepOf } from "@/api/steps";
import { useSaying } from "@/measures/likes";
import classes from "./Finish.module.css";

interface Props {
  planId?: number;
  plan: Schemas["Plan"];
  cut: Schemas["CutFigures"];
}

/** The marks of one edge in tens, so that a finger keeps its place. */
export function inTens(marks: number[]): number[][] {
  return Array.from({ length: Math.ceil(marks.length / 10) }, (_, i) =>
    marks.slice(10 * i, 10 * i + 10),
  );
}

/** The lists to read: one where both edges of a row are marked alike. */
export function edgesOf(row: Schemas["MarkedRow"]) {
  const [near, far] = row.marks;
  if (!near) return [];
  if (!far) return [{ name: "middles", edge: near }];
  const alike = near.along_mm.every((at, i) => Math.abs(at - (far.along_mm[i] ?? 0)) < 0.05);
  if (alike) return [{ name: "both sides", edge: near }];
  return [
    { name: "the straight edge", edge: near },
    { name: "far side", edge: far },
  ];
}

export function Marks({ planId, plan, cut }: Props) {
  const { figure, say } = useSaying();
  const [row, setRow] = useState(0);
  const shown = cut.rows[Math.min(row, cut.rows.length - 1)];
  if (!shown) return <p className={classes.said}>Nothing is cut from this sheet.</p>;
  const planned = stepOf(plan, "cut");
  const product = planned?.products[shown.product];
  const drift = cut.products[shown.product]?.drift;
  const edges = edgesOf(shown);
  return (
    <div className={classes.marks}>
      {cut.rows.length > 1 && (
        <NativeSelect
          aria-label="Row"
          w={240}
          value={String(row)}
          data={cut.rows.map((r, i) => ({
            value: String(i),
            label: `Row ${i + 1}, ${planned?.products[r.product]?.name ?? ""}`,
          }))}
          onChange={(e) => setRow(Number(e.currentTarget.value))}
        />
      )}
      <p className={classes.said}>
        <b>{product?.name}</b> from {say("length", shown.from_mm)} to {say("length", shown.to_mm)}{" "}
        {(planned?.across ?? false) !== shown.crosswise ? "along" : "across"} the sheet.{" "}
        {shown.marks.length === 1
          ? "The cutter's middle goes here:"
          : "The blade's middle goes from mark to mark:"}
      </p>
      <table className={classes.marksTable}>
        <tbody>
          {edges.map(({ name, edge }) =>
            inTens(edge.along_mm).map((ten, i) => (
              <tr key={`${name} ${ten[0]}`}>
                <th scope="row">{i === 0 ? name : ""}</th>
                {ten.map((at) => (
                  <td key={at}>{figure("length", Math.round(at))}</td>
                ))}
              </tr>
            )),
          )}
        </tbody>
      </table>
      {drift && (
        <p className={classes.said}>
          Measured each from the last cut, the last mark would lie{" "}
          <b>{say("length", drift.last_mm)} short</b> and each piece weigh{" "}
          {say("mass", drift.lighter_g)} less.
        </p>
      )}
      {planId !== undefined && (
        <p className={classes.files}>
          At true size:{" "}
          <a href={`/api/plans/${planId}/template.pdf?of=piece&product=${shown.product}`}>
            stencil of one {product?.name} (PDF)
          </a>{" "}
          <a href={`/api/plans/${planId}/template.svg?of=piece&product=${shown.product}`}>SVG</a>{" "}
          <a href={`/api/plans/${planId}/template.pdf?of=sheet`}>the whole sheet in pages (PDF)</a>{" "}
          <a href={`/api/plans/${planId}/template.svg?of=sheet`}>SVG</a>
        </p>
      )}
    </div>
  );
}
