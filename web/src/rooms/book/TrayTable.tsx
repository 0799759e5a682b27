/** The trays of a record: when each was shaped, proofed, baked and cool; and what its proof teaches. */
import { Button } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { api, got } from "@/api/client";
import { queries, sentence, useSession } from "@/api/queries";
import type { RunView } from "@/api/runs";
import { made, stepOf } from "@/api/steps";
import { clock } from "@/app/time";
import { useWeighed } from "@/finish/PieceWeights";
import { WeightChart } from "@/finish/WeightChart";
import { useSaying } from "@/measures/likes";
import { span } from "@/measures/quantity";
import classes from "./Book.module.css";

const HEADS: Record<string, string> = {
  "done shape": "Shaped",
  "out shape": "Proofed",
  "done wash": "Washed",
  "in bake": "In",
  "done bake": "Out",
  "out bake": "Cool",
};

export function TrayTable({ run }: { run: RunView }) {
  const { trays } = run.standing;
  if (run.tray_steps.length === 0 || !trays.some((t) => t.lost || t.deeds.length > 0)) return null;
  const does = new Map(run.worked.strip.map((s) => [s.key, s.do]));
  return (
    <section>
      <h2>Trays</h2>
      <div className={classes.trays}>
        <table className={classes.deeds}>
          <thead>
            <tr>
              <th scope="col">Tray</th>
              {run.tray_steps.map((s) => (
                <th scope="col" key={s.kind + s.stop}>
                  {HEADS[`${s.kind} ${does.get(s.stop)}`]}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {trays.map((t) => (
              <tr key={t.tray}>
                <td>
                  <b>{t.tray}</b>{" "}
                  <span className="quiet">
                    {t.pieces} {stepOf(run.plan, "cut")?.products[t.product]?.name}
                  </span>
                </td>
                {run.tray_steps.map((s, i) => (
                  <td key={s.kind + s.stop}>
                    {t.deeds[i]
                      ? clock(t.deeds[i].at)
                      : t.lost && i === t.deeds.length
                        ? `lost ${clock(t.lost.at)}`
                        : "–"}
                    {t.deeds[i]?.assumed && <span className="quiet"> as planned</span>}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <ProofTeaches run={run} />
    </section>
  );
}

/** A proof that was just right may become the kitchen's reference. */
function ProofTeaches({ run }: { run: RunView }) {
  const session = useSession();
  const path = { run_id: run.id };
  const through = run.standing.trays.some((t) =>
    t.deeds.some((d) => d.kind === "out" && d.stop === "shape"),
  );
  const offer = useQuery({
    queryKey: ["proof", run.id],
    queryFn: () => got(api.GET("/api/runs/{run_id}/proof", { params: { path } })),
    enabled: through && run.plan.formula !== null && run.plan.formula !== undefined,
    retry: false,
  });
  const keep = useMutation({
    mutationFn: () => got(api.POST("/api/runs/{run_id}/proof", { params: { path } })),
    onSuccess: () => {
      queries.invalidateQueries({ queryKey: ["kitchen"] });
      queries.invalidateQueries({ queryKey: ["warmth"] });
    },
  });
  if (!offer.data) return null;
  const { proofed_min, before_min, after_min } = offer.data;
  return (
    <p className={classes.teaches}>
      They proofed {span(Math.round(proofed_min))} on average. If that was just right, the kitchen's
      reference proof becomes {span(Math.round(after_min))} in place of{" "}
      {span(Math.round(before_min))}.{" "}
      {session.data?.me?.role === "head" && !keep.data && (
        <Button variant="default" size="xs" loading={keep.isPending} onClick={() => keep.mutate()}>
          Set the reference proof to {span(Math.round(after_min))}
        </Button>
      )}
      {keep.data && <b role="status">Kept.</b>}
      {keep.isError && <span role="alert">{sentence(keep.error)}</span>}
    </p>
  );
}

/** The pieces that were weighed, as they lay along the sheet. */
export function PiecesWeighed({ run }: { run: RunView }) {
  if (run.standing.pieces.length === 0) return null;
  return (
    <section>
      <h2>Pieces on the scale</h2>
      {run.standing.pieces.map((p) => (
        <Pieces key={p.event_id} run={run} product={p.product} grams={p.grams} />
      ))}
    </section>
  );
}

function Pieces({ run, product, grams }: { run: RunView; product: number; grams: number[] }) {
  const { words } = useSaying();
  const judged = useWeighed(run.worked, product, grams).data;
  const piece = made(run.worked, "cut")?.products[product];
  if (!piece) return null;
  return (
    <>
      <WeightChart grams={grams} target={piece.piece_g} judged={judged} />
      {judged?.says.map((text) => (
        <p key={text}>{words(text)}</p>
      ))}
    </>
  );
}
