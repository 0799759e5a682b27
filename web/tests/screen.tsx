/** A screen to put components on: the trade's words and a kitchen as the core wrote them, no server. */
import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { type ReactNode, useState } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import type { Schemas } from "@/api/client";
import type { Plan, Worked } from "@/api/steps";
import { LikesProvider } from "@/measures/likes";
import written from "./written/panels.json";

export const plan = written.plan as unknown as Plan;
export const worked = written.worked as unknown as Worked;
/** The same, its last sheet rolled up in place of laid double. */
export const coiled = written.coiled as unknown as { plan: Plan; worked: Worked };
export const warmth = written.warmth as unknown as Schemas["WorkedWarmth"];

/** What answers in place of the server, by method and path; what is not named answers nothing. */
export type Answers = Record<string, (body: unknown) => unknown>;

class Refused {
  constructor(
    readonly status: number,
    readonly faults: Schemas["Fault"][],
  ) {}
}
export const refuse = (status: number, field: string, message: string) =>
  new Refused(status, [{ field, message }]);

/** Put answers in the server's place, and keep what was asked. */
export function serve(answers: Answers) {
  const asked: { what: string; body: unknown }[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const what = `${request.method} ${new URL(request.url, "http://localhost").pathname}`;
    const body = request.body ? await request.json() : null;
    asked.push({ what, body });
    const anything = Object.keys(answers).some((key) => key.startsWith("POST"));
    const answer = answers[what] ?? (what === "GET /api/health" && anything ? () => ({}) : null);
    if (!answer) throw new TypeError(`nobody answers ${what}`);
    const said = await answer(body);
    return said instanceof Refused
      ? Response.json({ faults: said.faults }, { status: said.status })
      : Response.json(said);
  });
  return asked;
}

export function newQueries() {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  queries.setQueryDefaults(["trade"], { staleTime: Number.POSITIVE_INFINITY });
  queries.setQueryDefaults(["kitchen"], { staleTime: Number.POSITIVE_INFINITY });
  queries.setQueryData(["trade"], written.trade);
  queries.setQueryData(["kitchen"], written.kitchen);
  return queries;
}

export function Around({
  children,
  likes,
}: {
  children: ReactNode;
  likes?: Partial<Schemas["Likes"]>;
}) {
  const [queries] = useState(newQueries);
  const whole = { units: "metric", folds: "letter", counts: "butter", ...likes } as const;
  return (
    <MantineProvider env="test">
      <QueryClientProvider client={queries}>
        <MemoryRouter>
          <LikesProvider likes={whole}>{children}</LikesProvider>
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>
  );
}

export function show(what: ReactNode, likes?: Partial<Schemas["Likes"]>) {
  return { hand: userEvent.setup(), ...render(<Around likes={likes}>{what}</Around>) };
}

/** Before each test: what Mantine asks for and a screen without a window has not, and a house that says nothing. */
export function begin() {
  window.matchMedia ??= ((query: string) => ({
    matches: false,
    media: query,
    addEventListener() {},
    removeEventListener() {},
  })) as unknown as typeof window.matchMedia;
  window.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
  Object.defineProperty(document, "fonts", {
    value: { addEventListener() {}, removeEventListener() {} },
    configurable: true,
  });
  serve({});
}

/** After each: nothing is on the screen, and nothing kept in the browser. */
export function end() {
  cleanup();
  localStorage.clear();
}
