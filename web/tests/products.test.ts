import { expect, it } from "vitest";
import { hasHeight, plainCut, reshaped, SHAPES, usualProduct, withProduct } from "@/plans/products";

it("starts every shape with sizes the core takes", () => {
  for (const { value } of SHAPES) {
    const product = usualProduct(value);
    expect(product.base_mm).toBeGreaterThan(10);
    expect(Boolean(product.height_mm)).toBe(hasHeight(value));
    if (value === "ring") expect(product.hole_mm).toBeLessThan(product.base_mm);
  }
});

it("keeps a name that was given, and takes the shape's own name otherwise", () => {
  const own = { ...usualProduct("triangle"), name: "Boatman's horn" };
  expect(reshaped(own, "square").name).toBe("Boatman's horn");
  expect(reshaped(usualProduct("triangle"), "square").name).toBe("Pocket");
  expect(reshaped({ ...usualProduct("triangle"), name: "Piece" }, "disc").name).toBe("Disc");
  expect(reshaped({ ...own, rows: 2 }, "disc").rows).toBe(2);
});

it("leaves room for one product more", () => {
  const two = withProduct(plainCut(), 3);
  expect(two.products.map((p) => p.rows)).toEqual([2, 0]);
  const three = withProduct(two, 1);
  expect(three.products.map((p) => p.rows)).toEqual([2, 1, 0]);
  expect(withProduct(plainCut(), 1).products[0]?.rows).toBe(1);
});
