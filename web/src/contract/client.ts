import createClient, { type Middleware } from "openapi-fetch";
import { clock } from "../data/clock";
import type { components, paths } from "./schema.gen";

export type Schemas = components["schemas"];

/** An answer of the server that says what went wrong, in one sentence. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    /** The whole answer, where it says more than a sentence. */
    readonly answer?: unknown,
  ) {
    super(message);
  }
}

const refuse: Middleware = {
  async onResponse({ response }) {
    clock.heard(response.headers.get("Ladder-Now"));
    if (response.ok) return undefined;
    const problem: Schemas["Problem"] | undefined = await response
      .clone()
      .json()
      .catch(() => undefined);
    throw new Refusal(response.status, problem?.detail ?? "The server did not answer as expected.", problem);
  },
  onError() {
    return new Error("There is no connection to the server. What you entered is kept; try again.");
  },
};

export const client = createClient<paths>({ baseUrl: "/api" });
client.use(refuse);

/** The body of an answer; refusals were thrown before. */
export async function body<T>(call: Promise<{ data?: T }>): Promise<T> {
  const { data } = await call;
  return data as T;
}
