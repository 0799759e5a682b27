/** The kinds of step, each found by the name of its file: adding one is adding a file. */
import type { Do } from "@/api/steps";
import type { KindView } from "./parts/props";

const files = import.meta.glob<{ default: KindView }>("./kinds/*.tsx", { eager: true });

const KINDS = new Map(
  Object.entries(files).map(([path, file]) => [path.slice(8, -4), file.default]),
);

/** What the screens know of a kind of step. */
export function kindOf(what: Do | string): KindView {
  const view = KINDS.get(what);
  if (!view) throw new Error(`No view for steps that do “${what}”.`);
  return view;
}

export const kindsShown = (): string[] => [...KINDS.keys()];
