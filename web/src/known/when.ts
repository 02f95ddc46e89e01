import type { Schemas } from "../contract/client";

export type Rough = Schemas["Rough"];

/** About when something was known, the latest first. */
export const whenNames: Record<Rough, string> = {
  "this-term": "this term",
  "last-term": "last term",
  "last-year": "last year",
  "long-ago": "long ago",
};
