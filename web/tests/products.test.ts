import { expect, it } from "vitest";
import type { Schemas } from "@/api/client";
import { reshaped, withProduct } from "@/steps/parts/products";

type Product = Schemas["Product"];
const product = (shape: Schemas["Shape"], name: string): Product => ({
  name,
  shape,
  base_mm: 90,
  height_mm: shape === "triangle" ? 200 : null,
  hole_mm: shape === "ring" ? 40 : 0,
  notch_mm: 0,
  rows: 0,
  card: "flat",
  filling_g: 0,
  strands: 1,
  beside: false,
  crosswise: false,
  toppings: [],
});
const SHAPES = ["triangle", "square", "disc", "ring"] as const;
const usual = SHAPES.map((shape) => product(shape, `Usual ${shape}`));
const triangle = usual[0] as Product;

const plainCut = () =>
  ({ do: "cut", id: "cut", products: [triangle] }) as unknown as Schemas["Cut"];

it("takes the usual sizes of another shape, and keeps the rows", () => {
  const disc = reshaped({ ...triangle, rows: 2 }, "disc", usual);
  expect([disc.shape, disc.rows, disc.height_mm]).toEqual(["disc", 2, null]);
});

it("keeps a name that was given, and takes the shape's own name otherwise", () => {
  const own = { ...triangle, name: "Boatman's horn" };
  expect(reshaped(own, "square", usual).name).toBe("Boatman's horn");
  expect(reshaped(triangle, "square", usual).name).toBe("Usual square");
  expect(reshaped({ ...triangle, name: "Piece" }, "disc", usual).name).toBe("Usual disc");
});

it("leaves room for one product more", () => {
  const two = withProduct(plainCut(), 3, usual);
  expect(two.products.map((p) => p.rows)).toEqual([2, 0]);
  const three = withProduct(two, 1, usual);
  expect(three.products.map((p) => p.rows)).toEqual([2, 1, 0]);
  expect(three.products.map((p) => p.shape)).toEqual(["triangle", "square", "disc"]);
});

it("changes nothing while the usual products are not known", () => {
  const cut = plainCut();
  expect(withProduct(cut, 3, [])).toBe(cut);
});
