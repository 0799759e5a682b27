/** Puts a value at a path such as `turns[1].roll_to_mm`, leaving what it was made from as it is. */
export function put<T>(document: T, path: string, value: unknown): T {
  const [head, ...rest] = path.split(/[.[\]]+/).filter(Boolean);
  if (head === undefined) return value as T;
  const next = (part: unknown) => put(part, rest.join("."), value);
  if (Array.isArray(document)) {
    return document.map((part, i) => (i === Number(head) ? next(part) : part)) as T;
  }
  const group = document as Record<string, unknown>;
  return { ...group, [head]: next(group[head]) } as T;
}
