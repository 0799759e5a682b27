/** How the signed-in person likes to read: available everywhere, English and metric until known. */
import { createContext, type ReactNode, useContext, useMemo } from "react";
import type { Schemas } from "@/api/client";
import { figure, format, leaf, type QuantityName } from "./quantity";
import { capital, foldName, localise } from "./words";

export type Likes = Schemas["Likes"];
const PLAIN: Likes = { units: "metric", folds: "letter", counts: "butter" };
const LikesContext = createContext<Likes>(PLAIN);

export function LikesProvider({ likes, children }: { likes?: Likes; children: ReactNode }) {
  return <LikesContext.Provider value={likes ?? PLAIN}>{children}</LikesContext.Provider>;
}

/** Everything a screen needs to say a value or a sentence of the core. */
export function useSaying() {
  const likes = useContext(LikesContext);
  return useMemo(
    () => ({
      likes,
      leaf: (um: number) => leaf(um, likes.units),
      say: (name: QuantityName, value: number) => format(name, value, likes.units),
      figure: (name: QuantityName, value: number) => figure(name, value, likes.units),
      words: (text: string) => localise(text, likes.units, likes.folds),
      fold: (fold: string) => foldName(fold, likes.folds),
      foldTitle: (fold: string) => capital(foldName(fold, likes.folds)),
      count: (butter: number, leaves: number) => (likes.counts === "butter" ? butter : leaves),
      counted: (butter: number, leaves: number) => {
        const [n, word] =
          likes.counts === "butter"
            ? [butter, "butter layer"]
            : [leaves, leaves === 1 ? "leaf" : "leaves"];
        return `${n} ${word}${likes.counts === "butter" && n !== 1 ? "s" : ""}`;
      },
      countWord: likes.counts === "butter" ? "butter layers" : "leaves",
    }),
    [likes],
  );
}
