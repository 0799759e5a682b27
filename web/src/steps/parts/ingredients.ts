import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";

type Ingredient = Schemas["Ingredient"];

/** Everything on the shelf: the library, this bakery's own, and what came with the plan. */
export function useShelf(plan: Schemas["Plan"]): Map<string, Ingredient> {
  const kitchen = useKitchen();
  const { library = [], ingredients = [], prepared = [] } = kitchen.data ?? {};
  const all = [...library, ...ingredients, ...(plan.formula?.own ?? []), ...prepared];
  return new Map(all.map((i) => [i.key, i]));
}

/** Choices for a select, in groups by kind, under the kinds' own names. */
export function grouped(shelf: Iterable<Ingredient>, kinds: { value: string; label: string }[]) {
  const all = [...shelf];
  return kinds
    .map(({ value, label }) => ({
      group: label,
      items: all
        .filter((i) => i.kind === value)
        .map(({ key, name }) => ({ value: key, label: name })),
    }))
    .filter(({ items }) => items.length > 0);
}
