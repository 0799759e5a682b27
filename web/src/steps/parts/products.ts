/** What a sheet is cut into: starting sizes, and which inputs a shape has. */
import { useQuery } from "@tanstack/react-query";
import { api, got, type Schemas } from "@/api/client";

type Product = Schemas["Product"];
type Cut = Schemas["Cut"];

/** What each shape is commonly cut to, as the core has it. */
export const useUsualProducts = () =>
  useQuery({
    queryKey: ["products"],
    queryFn: () => got(api.GET("/api/products")),
    staleTime: Number.POSITIVE_INFINITY,
  }).data ?? [];

const ofShape = (usual: Product[], shape: Schemas["Shape"]): Product | undefined =>
  usual.find((p) => p.shape === shape);

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
