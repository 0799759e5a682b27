import type { Schemas } from "@/api/client";
import { useKitchen } from "@/api/queries";

type Ingredient = Schemas["Ingredient"];

const GROUPS: Record<Schemas["Kind"], string> = {
  flour: "Flour",
  water: "Water",
  milk: "Milk",
  egg: "Egg",
  fat: "Butter and fat",
  sugar: "Sugar",
  salt: "Salt",
  yeast: "Yeast",
  malt: "Malt",
  acid: "Acid",
  other: "Other",
};

/** Everything on the shelf: the library, this bakery's own, and what came with the plan. */
export function useShelf(plan: Schemas["Plan"]): Map<string, Ingredient> {
  const kitchen = useKitchen();
  const { library = [], ingredients = [] } = kitchen.data ?? {};
  const all = [...library, ...ingredients, ...(plan.formula?.own ?? [])];
  return new Map(all.map((i) => [i.key, i]));
}

/** Choices for a select, in groups by kind. */
export function grouped(shelf: Iterable<Ingredient>) {
  const groups = new Map<string, { value: string; label: string }[]>();
  for (const { kind, key, name } of shelf) {
    const group = GROUPS[kind];
    groups.set(group, [...(groups.get(group) ?? []), { value: key, label: name }]);
  }
  const order = Object.values(GROUPS);
  return [...groups]
    .sort(([a], [b]) => order.indexOf(a) - order.indexOf(b))
    .map(([group, items]) => ({ group, items }));
}
