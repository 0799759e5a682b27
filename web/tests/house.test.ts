import { expect, it } from "vitest";

/** The source of every file of the front end, by its path under src. */
const sources = Object.fromEntries(
  Object.entries(
    import.meta.glob<string>(["../src/**/*.ts", "../src/**/*.tsx", "!../src/**/*.d.ts"], {
      query: "?raw",
      import: "default",
      eager: true,
    }),
  ).map(([path, text]) => [path.replace("../src/", "").replace(/\.tsx?$/, ""), text]),
);

/** What a file imports of our own, whole types as well: a circle of types is a circle. */
function imports(file: string): string[] {
  const folder = file.split("/").slice(0, -1);
  return [...(sources[file] ?? "").matchAll(/from "([^"]+)"/g)].flatMap(([, to = ""]) => {
    if (to.startsWith("@/")) return [to.slice(2)];
    if (!to.startsWith(".")) return [];
    const parts = [...folder];
    for (const part of to.split("/")) {
      if (part === "..") parts.pop();
      else if (part !== ".") parts.push(part);
    }
    return [parts.join("/")];
  });
}

/** A circle of imports through a file, if there is one. */
function circle(): string[] | null {
  const done = new Set<string>();
  const walk = (file: string, trail: string[]): string[] | null => {
    if (trail.includes(file)) return [...trail.slice(trail.indexOf(file)), file];
    if (done.has(file) || !(file in sources)) return null;
    for (const to of imports(file)) {
      const found = walk(to, [...trail, file]);
      if (found) return found;
    }
    done.add(file);
    return null;
  };
  for (const file of Object.keys(sources)) {
    const found = walk(file, []);
    if (found) return found;
  }
  return null;
}

const LAYERS = [
  ["rooms", "app"],
  ["steps", "sheets", "blocks", "threads"],
  ["finish", "cold", "drafts", "offline"],
  ["drawings"],
  ["measures", "api"],
  ["wire"],
];
const layer = (file: string) => LAYERS.findIndex((of) => of.includes(file.split("/")[0] ?? ""));
// What every room stands on: times, and the states of a screen.
const SHARED_BY_ALL = new Set(["app/states", "app/time"]);

it("reads every file of the house", () => {
  expect(Object.keys(sources).length).toBeGreaterThan(100);
  expect(imports("drawings/views")).toContain("api/steps");
});

it("has no circle", () => {
  expect(circle()).toBeNull();
});

it("is built from the ground up", () => {
  for (const file of Object.keys(sources)) {
    if (file === "main") continue;
    for (const to of imports(file)) {
      if (SHARED_BY_ALL.has(to) || !(to in sources)) continue;
      expect(layer(to), `${file} reaches up to ${to}`).toBeGreaterThanOrEqual(layer(file));
    }
  }
});

it("has rooms that do not reach into each other", () => {
  for (const file of Object.keys(sources)) {
    const [top, room] = file.split("/");
    if (top !== "rooms") continue;
    for (const to of imports(file)) {
      const [other, beside] = to.split("/");
      if (other === "rooms") expect(beside, `${file} reaches into ${to}`).toBe(room);
    }
  }
});
