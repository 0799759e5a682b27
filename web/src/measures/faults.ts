import { createContext, useCallback, useContext, useMemo, useState } from "react";

/** What the server found wrong, by the field's path; read by every input that has a path. */
export const FaultsContext = createContext<Record<string, string>>({});

/** Titles of advice that wants minding, by the path of the field it is about. */
export const MindedContext = createContext<Record<string, string>>({});

/** Which values are pointed at, by their paths, such as by advice about them; and who points. */
export const LitContext = createContext<readonly string[]>([]);
export const LightContext = createContext<(paths: readonly string[]) => void>(() => {});

/** Whether this value, or the group it belongs to, is pointed at. */
export function useLit(path: string): boolean {
  return useContext(LitContext).some((lit) => path === lit || path.startsWith(`${lit}.`));
}

/** Not a field but what is seen: the leaves, from the side. */
export const LEAVES = "leaves";

/** Told by every input whether it holds something that cannot be read. */
export const UnreadContext = createContext<(path: string, unread: boolean) => void>(() => {});

/** Which fields hold what cannot be read: a form with one of them is neither saved nor sent. */
export function useUnread() {
  const [paths, setPaths] = useState<readonly string[]>([]);
  const tell = useCallback(
    (path: string, unread: boolean) =>
      setPaths((now) =>
        now.includes(path) === unread
          ? now
          : unread
            ? [...now, path]
            : now.filter((p) => p !== path),
      ),
    [],
  );
  return useMemo(() => ({ unread: paths.length > 0, tell }), [paths, tell]);
}
