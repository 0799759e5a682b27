/** A key that no other of these has, from a name. */
export function freeKey(name: string, others: { key: string }[]): string {
  const stem =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .slice(0, 34) || "own";
  const taken = new Set(others.map((o) => o.key));
  let key = stem;
  for (let n = 2; taken.has(key); n++) key = `${stem}-${n}`;
  return key;
}
