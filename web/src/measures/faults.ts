import { createContext } from "react";

/** What the server found wrong, by the field's path; read by every input that has a path. */
export const FaultsContext = createContext<Record<string, string>>({});

/** Titles of advice that wants minding, by the path of the field it is about. */
export const MindedContext = createContext<Record<string, string>>({});
