/** What a sheet is cut into: starting sizes, and which inputs a shape has. */
import { useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";

type Product = Schemas["Product"];
type Cut = Schemas["Cut"];

export const SHAPES: { value: Schemas["Shape"]; label: string }[] = [
  { value: "triangle", label: "Triangles" },
  { value: "square", label: "Squares" },
  { value: "rectangle", label: "Rectangles" },
  { value: "disc", label: "Discs" },
  { value: "ring", label: "Rings" },
  { value: "strip", label: "Strips" },
];

export const CARD_NAMES: Record<Schemas["Card"], string> = {
  flat: "as it is cut",
  crescent: "rolled triangle",
  roll: "rolled rectangle",
  pocket: "corners to the middle",
  pinwheel: "pinwheel",
  turnover: "turned over",
  plait: "plait",
  case: "ring on a disc",
};

export const hasHeight = (shape: Schemas["Shape"]): boolean =>
  shape === "triangle" || shape === "rectangle" || shape === "strip";

/** What each shape is commonly cut to, as the core has it. */
export const useUsualProducts = () =>
  useQuery({
    queryKey: ["products"],
    queryFn: () => got(api.GET("/api/products")),
    staleTime: Number.POSITIVE_INFINITY,
  }).data ?? [];

const ofShape = (usual: Product[], shape: Schemas["Shape"]): Product | undefined =>
  usual.find((p) => p.shape === shape);

export const plainCut = (usual: Product[]): Cut => ({
  products: usual.slice(0, 1),
  kerf_mm: 0,
  trim_mm: 0,
  shrink_pct: 0,
  across: false,
});

/** The same product in another shape: what it keeps is its rows, and its name if it was given one. */
export function reshaped(product: Product, shape: Schemas["Shape"], usual: Product[]): Product {
  const fresh = ofShape(usual, shape) ?? { ...product, shape };
  const named = product.name !== ofShape(usual, product.shape)?.name && product.name !== "Piece";
  return { ...fresh, rows: product.rows, name: named ? product.name : fresh.name };
}

/**
 * One more product at the end. What stood last must leave room: if it took all the rest of the sheet,
 * it keeps one row less than it has.
 */
export function withProduct(cut: Cut, rows: number, usual: Product[]): Cut {
  const last = cut.products.at(-1);
  const more = ofShape(usual, last?.shape === "square" ? "disc" : "square");
  if (!more) return cut;
  const products = cut.products.map((p) =>
    p === last && p.rows === 0 ? { ...p, rows: Math.max(rows - 1, 1) } : p,
  );
  return { ...cut, products: [...products, more] };
}
