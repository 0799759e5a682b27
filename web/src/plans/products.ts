/** What a sheet is cut into: starting sizes, and which inputs a shape has. */
import type { Schemas } from "@/api/client";

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

const USUAL: Record<Schemas["Shape"], Partial<Product>> = {
  triangle: { base_mm: 90, height_mm: 280, card: "crescent" },
  square: { base_mm: 100, card: "pocket" },
  rectangle: { base_mm: 80, height_mm: 140, card: "roll" },
  disc: { base_mm: 90, card: "flat" },
  ring: { base_mm: 90, hole_mm: 55, card: "case" },
  strip: { base_mm: 25, height_mm: 280, card: "plait" },
};

export const hasHeight = (shape: Schemas["Shape"]): boolean =>
  shape === "triangle" || shape === "rectangle" || shape === "strip";

const NAMES: Record<Schemas["Shape"], string> = {
  triangle: "Croissant",
  square: "Pocket",
  rectangle: "Roll",
  disc: "Disc",
  ring: "Ring",
  strip: "Plait",
};

/** A product of a shape with the sizes it commonly has. */
export const usualProduct = (shape: Schemas["Shape"], rows = 0): Product => ({
  name: NAMES[shape],
  shape,
  base_mm: 90,
  hole_mm: 0,
  notch_mm: 0,
  rows,
  card: "flat",
  filling_g: 0,
  ...USUAL[shape],
});

export const plainCut = (): Cut => ({
  products: [usualProduct("triangle")],
  kerf_mm: 0,
  trim_mm: 0,
  shrink_pct: 0,
  across: false,
});

/** The same product in another shape: what it keeps is its name if it was given one. */
export function reshaped(product: Product, shape: Schemas["Shape"]): Product {
  const usual = usualProduct(shape, product.rows);
  const named = product.name !== NAMES[product.shape] && product.name !== "Piece";
  return { ...usual, name: named ? product.name : usual.name };
}

/**
 * One more product at the end. What stood last must leave room: if it took all the rest of the sheet,
 * it keeps one row less than it has.
 */
export function withProduct(cut: Cut, rows: number): Cut {
  const last = cut.products.at(-1);
  const products = cut.products.map((p) =>
    p === last && p.rows === 0 ? { ...p, rows: Math.max(rows - 1, 1) } : p,
  );
  const shape = last?.shape === "square" ? "disc" : "square";
  return { ...cut, products: [...products, usualProduct(shape)] };
}
