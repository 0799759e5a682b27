/** Pieces on the scale: by keypad, from a table, or from the simulated scale; and what they say. */
import { Button, FileButton, NativeSelect } from "@mantine/core";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, got, type Schemas } from "@/api/client";
import { sentence, useSimulated } from "@/api/queries";
import type { RunView } from "@/api/runs";
import { made as madeOf } from "@/api/steps";
import { useHalfTyped } from "@/drafts/useHalfTyped";
import { useSaying } from "@/measures/likes";
import { Pad } from "@/measures/Pad";
import classes from "./PieceWeights.module.css";
import { WeightChart } from "./WeightChart";

interface Props {
  view: RunView;
  keep: (product: number, grams: number[]) => void;
}

/** The weighing of pieces of one product, judged by the core. */
export function useWeighed(worked: Schemas["WorkedPlan"], product: number, grams: number[]) {
  const made = madeOf(worked, "cut")?.products[product];
  const body = {
    grams,
    target_g: made?.piece_g ?? 1,
    thickness_mm: madeOf(worked, "last_sheet")?.thickness_mm,
    base_mm: made?.along_mm,
  };
  return useQuery({
    queryKey: ["weighing", body],
    queryFn: () => got(api.POST("/api/weighing", { body })),
    enabled: grams.length > 0 && made !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before) => (grams.length > 0 ? before : undefined),
  });
}

export function PieceWeights({ view, keep }: Props) {
  const { words } = useSaying();
  const [product, setProduct] = useState(0);
  const half = useHalfTyped<number[]>(`pieces.${view.id}.${product}`, []);
  const [grams, setGrams] = [half.value, half.set];
  const simulated = useSimulated();
  // what was typed is never replaced: what comes from elsewhere follows it
  const more = (found: number[]) => setGrams([...grams, ...found]);
  const { worked } = view;
  const cut = madeOf(worked, "cut");
  const made = cut?.products[product];
  const weighed = useWeighed(worked, product, grams);
  const simulate = useMutation({
    mutationFn: () =>
      got(
        api.POST("/api/weighing/simulated", {
          body: {
            target_g: made?.piece_g ?? 60,
            pieces: Math.min(made?.per_row || 16, 24),
            bias_pct: 1,
            drift_pct: -6,
            noise_g: 0.4,
            seed: grams.length + 1,
          },
        }),
      ),
    onSuccess: more,
  });
  const table = useMutation({
    mutationFn: (file: File) => {
      const body = new FormData();
      body.append("file", file);
      return got(
        api.POST("/api/weighing/csv", {
          body: body as unknown as { file: string },
          bodySerializer: (b) => b as unknown as FormData,
        }),
      );
    },
    onSuccess: more,
  });
  if (!made) return null;
  return (
    <div className={classes.weights}>
      <div className={classes.enter}>
        {(cut?.products.length ?? 0) > 1 && (
          <NativeSelect
            label="Product"
            size="lg"
            value={String(product)}
            data={cut?.products.map((p, n) => ({ value: String(n), label: p.name })) ?? []}
            onChange={(e) => setProduct(Number(e.currentTarget.value))}
          />
        )}
        <p>
          Piece <b>{grams.length + 1}</b> along the sheet
        </p>
        <Pad
          key={grams.length}
          quantity="mass"
          label={`Piece ${grams.length + 1}`}
          example={made.piece_g.toFixed(0)}
          refuse={(value, shown) =>
            value < 0.1 || value > 20000 ? `${shown} is no weight of a piece.` : null
          }
          onEnter={(g) => setGrams([...grams, g])}
        />
      </div>
      <div className={classes.found}>
        <WeightChart grams={grams} target={made.piece_g} judged={weighed.data} />
        {weighed.data?.says.map((text) => (
          <p key={text} data-verdict={weighed.data?.verdict}>
            {words(text)}
          </p>
        ))}
        {[simulate, table].map((m, i) =>
          m.isError ? (
            // biome-ignore lint/suspicious/noArrayIndexKey: there are two, always in this order
            <p role="alert" key={i}>
              {sentence(m.error)}
            </p>
          ) : null,
        )}
        <div className={classes.ways}>
          <Button
            variant="default"
            size="md"
            disabled={grams.length === 0}
            onClick={() => setGrams(grams.slice(0, -1))}
          >
            Take the last back
          </Button>
          <FileButton accept=".csv,text/csv,text/plain" onChange={(f) => f && table.mutate(f)}>
            {(props) => (
              <Button variant="default" size="md" {...props}>
                From a table
              </Button>
            )}
          </FileButton>
          {simulated && (
            <Button variant="default" size="md" onClick={() => simulate.mutate()}>
              Simulated scale
            </Button>
          )}
          <Button
            size="md"
            disabled={grams.length === 0}
            onClick={() => {
              keep(product, grams);
              half.clear();
            }}
          >
            Save {grams.length || "the"} weights
          </Button>
        </div>
      </div>
    </div>
  );
}
