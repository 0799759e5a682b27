/** Calls to our own API: typed by its OpenAPI document, with faults as one kind of error. */
import createClient, { type Middleware } from "openapi-fetch";
import { learn } from "@/wire/clock";
import { answered, troubled, unanswered } from "@/wire/connection";
import { newId } from "@/wire/id";
import { hearLife } from "@/wire/life";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Fault = Schemas["Fault"];

/** Told to the window when the server no longer knows who is here. */
export const SIGNED_OUT = "eight-turn:signed-out";

/** Told to the window when somebody signed out on purpose. */
export const LEFT = "eight-turn:left";

/** The server answered that something is wrong; `faults` says what, field by field. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly faults: Fault[],
  ) {
    super(faults.map((f) => f.message).join(" "));
  }

  /** Whether the same request may go through later: after signing in again, or from a fresh page. */
  get passing(): boolean {
    return this.status === 401 || this.status === 403 || this.status >= 500;
  }
}

/** What was refused, in a sentence by the field it is about; nothing where it failed for another reason. */
export const byField = (error: unknown): Record<string, string> =>
  error instanceof Problem ? Object.fromEntries(error.faults.map((f) => [f.field, f.message])) : {};

/** The server did not answer at all. */
export class Offline extends Error {
  constructor() {
    super("No connection to the bakehouse.");
  }
}

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
}

const askedAt = new WeakMap<Request, number>();

/** Learn the time and the life of the house from an answer that is the one to this request, and no older. */
export function hear(asked: string | null, at: number, response: Response): void {
  if (!asked || response.headers.get("X-Asked") !== asked) return;
  const said = response.headers.get("X-House-Time");
  if (said) learn(Number(said), at, Date.now());
  hearLife(response.headers.get("X-House-Life"));
}

const house: Middleware = {
  onRequest({ request }) {
    request.headers.set("X-CSRFToken", csrfToken());
    request.headers.set("X-Asked", newId());
    askedAt.set(request, Date.now());
    return request;
  },
  async onResponse({ request, response }) {
    answered();
    hear(request.headers.get("X-Asked"), askedAt.get(request) ?? Date.now(), response);
    if (response.ok) {
      // what can be read says nothing of what can be written
      if (request.method !== "GET") troubled(null);
      return response;
    }
    if (response.status === 401) window.dispatchEvent(new Event(SIGNED_OUT));
    const body = await response.json().catch(() => null);
    const faults: Fault[] = body?.faults ?? [
      { field: "", message: `The bakehouse answered with an error (${response.status}).` },
    ];
    // said by the house itself, and not by something in between
    if (response.status === 503 && body?.faults) troubled(faults[0]?.message ?? null);
    throw new Problem(response.status, faults);
  },
  onError({ error }) {
    // what was asked for was no longer wanted
    if (error instanceof DOMException && error.name === "AbortError") return error;
    unanswered();
    return new Offline();
  },
};

// asked for at each call, so that whatever stands in its place is used
export const api = createClient<paths>({ baseUrl: "", fetch: (request) => fetch(request) });
api.use(house);

/** The data of an answer; `house` has thrown already where there is none. */
export async function got<T>(answer: Promise<{ data?: T }>): Promise<T> {
  return (await answer).data as T;
}

/** Send a file as a form; openapi-fetch has no typed form for it. */
export async function sendFile<T>(path: string, file: File): Promise<T> {
  const form = new FormData();
  form.append("file", file);
  const answer = await fetch(path, {
    method: "POST",
    body: form,
    headers: { "X-CSRFToken": csrfToken() },
  }).catch(() => {
    throw new Offline();
  });
  const body = await answer.json();
  if (!answer.ok) throw new Problem(answer.status, body.faults);
  return body;
}
