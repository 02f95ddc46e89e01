import { ulid } from "ulid";
import { body, client } from "../contract/client";
import { clock } from "./clock";
import type { Change } from "./facts";
import type { Entry } from "./outbox";
import { useSend } from "./queryClient";

/** An entry gets its id and time where it is written, so sending it twice counts once. */
export function entry(kind: Entry["kind"], fields: Omit<Partial<Entry>, "id" | "at" | "kind"> = {}): Entry {
  return { id: ulid(), at: clock.moment(), kind, ...fields };
}

/** Sends entries of a lesson. */
export const sendEntries = (ladder: string, entries: Entry[]) =>
  body(client.POST("/ladders/{ladder}/entries", { params: { path: { ladder } }, body: { entries } }));

/** What an entry changes. */
export const logged = (ladder: string): Change[] => [{ fact: "log", of: ladder }];

/** Appends entries to a ladder's log. */
export const useAppend = (ladder: string) =>
  useSend((entries: Entry[]) => sendEntries(ladder, entries), logged(ladder));
