import type { QueryClient, QueryKey, QueryMeta } from "@tanstack/react-query";

/** The kinds of records an answer can come from. */
export type Fact =
  | "account"
  | "calendar"
  | "family"
  | "ladder"
  | "library"
  | "log"
  | "messages"
  | "people"
  | "piece"
  | "plan"
  | "report"
  | "told"
  | "way"
  | "week"
  | "words";

/** A record that is changed: on one ladder, of one piece, or anywhere. */
export interface Change {
  fact: Fact;
  of?: string;
}

/** What a sending changes, which may hang on what is sent. */
export type Changes = readonly Change[] | ((sent: unknown) => readonly Change[]);

declare module "@tanstack/react-query" {
  interface Register {
    queryMeta: {
      /** What the answer is made of. */
      from: readonly Fact[];
      /** The ladders, pieces or links whose records these are; without them, all. */
      of?: readonly string[];
      /** Under which the answer is kept on this device, where it is. */
      kept?: string;
    };
    mutationMeta: {
      /** What sending this changes; what is asked anew follows from it. */
      changes: Changes;
      /** The question whose new answer comes back with the sending. */
      answers?: QueryKey;
      /** A refusal after which what is shown stays until the user chose. */
      stays?: (refused: Error) => boolean;
    };
  }
}

/** What a student's pages are made of, beside what each has of its own. */
export const standing: readonly Fact[] = [
  "log",
  "ladder",
  "piece",
  "library",
  "calendar",
  "way",
  "words",
  "people",
];

/** Reports whether an answer may be another one after the changes. */
export const touched = (asked: QueryMeta | undefined, changes: readonly Change[]): boolean =>
  changes.some(
    (c) =>
      asked?.from.includes(c.fact) &&
      (c.of === undefined || asked.of === undefined || asked.of.includes(c.of)),
  );

/** Asks anew whatever the changes touch, except the question that was just answered. */
export function announce(queries: QueryClient, changes: readonly Change[], answered?: QueryKey) {
  const known = JSON.stringify(answered);
  return queries.invalidateQueries({
    predicate: (q) => touched(q.meta, changes) && JSON.stringify(q.queryKey) !== known,
  });
}

/** The same where answers are on their way that were made before the changes. */
export async function announceAnew(queries: QueryClient, changes: readonly Change[]) {
  await queries.cancelQueries({ predicate: (q) => touched(q.meta, changes) });
  await announce(queries, changes);
}
