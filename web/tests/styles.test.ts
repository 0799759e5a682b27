/** Of Mantine's styles those of the parts in use are fetched, and none is forgotten. */
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { expect, test } from "vitest";

const MANTINE = resolve(__dirname, "../node_modules/@mantine/core");
const under = (folder: string) =>
  readdirSync(folder, { recursive: true, encoding: "utf8" }).map((file) => join(folder, file));
const read = (file: string) => readFileSync(file, "utf8");

/** The parts that our files import from Mantine. */
function used(): Set<string> {
  const found = new Set<string>();
  for (const file of under(resolve(__dirname, "../src")).filter((f) => f.endsWith(".tsx"))) {
    for (const [, names = ""] of read(file).matchAll(/import \{([^}]*)\} from "@mantine\/core"/g)) {
      for (const name of names.split(",")) found.add(name.trim());
    }
  }
  return found;
}

/** The style modules that a part's module pulls in, by those it is built of. */
function stylesOf(module: string, seen: Set<string>, found: Set<string>): void {
  if (seen.has(module) || !existsSync(module)) return;
  seen.add(module);
  for (const [, path = ""] of read(module).matchAll(/from\s*"(\.[^"]+)"/g)) {
    const style = /(\w+)\.module\.mjs$/.exec(path)?.[1];
    if (style) found.add(style);
    else stylesOf(resolve(dirname(module), path), seen, found);
  }
}

test("every part of Mantine that is used has its style, and no other is fetched", () => {
  const wanted = new Set<string>();
  const modules = under(`${MANTINE}/esm/components`);
  for (const name of used()) {
    for (const module of modules.filter((m) => m.endsWith(`/${name}.mjs`))) {
      stylesOf(module, new Set(), wanted);
    }
  }
  const fetched = [
    ...read(resolve(__dirname, "../src/app/mantine.ts")).matchAll(
      /styles\/([A-Z]\w*)\.layer\.css/g,
    ),
  ];
  expect(wanted.size).toBeGreaterThan(15);
  expect(fetched.map(([, name]) => name).sort()).toEqual(
    [...wanted].filter((name) => existsSync(`${MANTINE}/styles/${name}.css`)).sort(),
  );
});
