import { createContext } from "react";

/** What the server found wrong, by the field's path; read by every input that has a path. */
export const FaultsContext = createContext<Record<string, string>>({});
