import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ulid } from "ulid";
import { body, client } from "../contract/client";
import { clock } from "./clock";

import type { Entry } from "./outbox";

/** An entry gets its id and time where it is written, so sending it twice counts once. */
export function entry(kind: Entry["kind"], fields: Omit<Partial<Entry>, "id" | "at" | "kind"> = {}): Entry {
  return { id: ulid(), at: clock.moment(), kind, ...fields };
}

/** Appends entries to a ladder's log and refreshes what depends on it. */
export function useAppend(ladder: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (entries: Entry[]) =>
      body(client.POST("/ladders/{ladder}/entries", { params: { path: { ladder } }, body: { entries } })),
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ["ladder", ladder] }),
        queries.invalidateQueries({ queryKey: ["today"] }),
        queries.invalidateQueries({ queryKey: ["piece"] }),
      ]),
  });
}
