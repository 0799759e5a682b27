import type { Schemas } from "@/api/client";
import { day } from "@/app/time";
import { useSaying } from "@/measures/likes";
import { WeighList } from "@/sheets/WeighList";
import classes from "./Day.module.css";

/** What comes of one ordered dough: doughs, blocks, sheets, and what to fetch. */
export function BatchView({ batch }: { batch?: Schemas["Batch"] }) {
  const { say, words, figure } = useSaying();
  if (!batch) return null;
  const { block } = batch;
  const many = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;
  return (
    <div className={classes.batch} aria-live="polite">
      <p className={classes.lead}>
        {batch.goes_on ? (
          <b>{words(batch.said[0] ?? "")}</b>
        ) : (
          <>
            <b>
              {many(batch.doughs, "dough")} of {say("mass", batch.dough_g)}
            </b>{" "}
            with {many(batch.doughs, "block")} of {say("mass", batch.butter_g)},{" "}
            {figure("length", Math.round(block.width_mm))} ×{" "}
            {say("length", Math.round(block.length_mm))}, {say("length", block.thickness_mm)} thick
          </>
        )}
        {batch.mixings > 1 && `; mixed in ${batch.mixings}`}
      </p>
      <p className="quiet">
        {batch.made.map((m) => `${m.pieces} × ${m.product}`).join(", ")}
        {batch.starts_at && ` · starts ${day(batch.starts_at)}`}
        {batch.limited_by !== "the plan" && ` · size limited by ${batch.limited_by}`}
        {batch.water &&
          (batch.water.ice_g > 0
            ? ` · ${say("mass", Math.round(batch.water.ice_g))} of the water as ice`
            : ` · ${batch.water.of} at ${say("temperature", batch.water.water_c)}`)}
      </p>
      <div className={classes.sheets}>
        {batch.sheets.map(({ sheet, times, at }) => (
          <div key={sheet.stop}>
            <p className={classes.when}>
              {at ? day(at) : "\u00a0"}
              {times > 1 && <b> {times} times</b>}
            </p>
            <WeighList sheet={sheet} />
          </div>
        ))}
      </div>
      <ul className={classes.said}>
        {batch.said.slice(batch.goes_on ? 1 : 0).map((text) => (
          <li key={text}>{words(text)}</li>
        ))}
        {batch.fetch.map((f) => (
          <li key={f.what}>
            {f.what}: {f.whole} of {say("mass", f.of_g)}
            {f.left_g > 0.5 && `, ${say("mass", Math.round(f.left_g))} left over`}
          </li>
        ))}
        {batch.notes.map((n) => (
          <li key={n.title} className={classes.mind}>
            <b>{words(n.title)}.</b> {words(n.text)}
          </li>
        ))}
      </ul>
    </div>
  );
}
