/** The marks of the cut as a list to read at the bench: every one measured from the datum. */
import { useState } from "react";
import type { Schemas } from "@/api/client";
import { Choice } from "@/measures/Choice";
import { useSaying } from "@/measures/likes";
import classes from "./Finish.module.css";

interface Props {
  planId?: number;
  plan: Schemas["Plan"];
  cut: Schemas["WorkedCut"];
}

/** The marks of one edge in tens, so that a finger keeps its place. */
export function inTens(marks: number[]): number[][] {
  return Array.from({ length: Math.ceil(marks.length / 10) }, (_, i) =>
    marks.slice(10 * i, 10 * i + 10),
  );
}

export function Marks({ planId, plan, cut }: Props) {
  const { figure, say } = useSaying();
  const [row, setRow] = useState(0);
  const shown = cut.rows[Math.min(row, cut.rows.length - 1)];
  if (!shown) return <p className={classes.said}>Nothing is cut from this sheet.</p>;
  const product = plan.cut?.products[shown.product];
  const drift = cut.products[shown.product]?.drift;
  const edges = shown.marks.length === 1 ? ["middles"] : ["datum side", "far side"];
  return (
    <div className={classes.marks}>
      {cut.rows.length > 1 && (
        <Choice
          label="Row"
          tight
          value={String(row)}
          options={cut.rows.map((r, i) => ({
            value: String(i),
            label: `${i + 1} ${plan.cut?.products[r.product]?.name ?? ""}`,
          }))}
          onChange={(v) => setRow(Number(v))}
        />
      )}
      <p className={classes.said}>
        <b>{product?.name}</b> from {say("length", shown.from_mm)} to {say("length", shown.to_mm)}{" "}
        {plan.cut?.across ? "along" : "across"} the sheet.{" "}
        {shown.marks.length === 1
          ? "The cutter's middle goes here:"
          : "The blade's middle goes from mark to mark:"}
      </p>
      <table className={classes.marksTable}>
        <tbody>
          {shown.marks.map((edge, e) =>
            inTens(edge.along_mm).map((ten, i) => (
              <tr key={`${edges[e]} ${ten[0]}`}>
                <th scope="row">{i === 0 ? edges[e] : ""}</th>
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
