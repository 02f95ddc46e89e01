import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { body, client, Refusal } from "../contract/client";
import { type Entry, Outbox } from "../data/outbox";
import { sessionQuery } from "../data/queries";
import { useFlush } from "../data/useFlush";

/** The outbox of this device. */
export const outbox = new Outbox(
  localStorage,
  async (ladder, entries) => {
    await body(client.POST("/ladders/{ladder}/entries", { params: { path: { ladder } }, body: { entries } }));
  },
  // Signed out or a tired server is no refusal of the entry: it can go later.
  (e) =>
    e instanceof Refusal && e.status !== 401 && e.status < 500 && e.status !== 429 ? e.message : undefined,
);

/** What the parts of a lesson write with. */
export interface Append {
  mutate: (entries: Entry[], then?: { onSuccess?: () => void }) => void;
  isPending: boolean;
  error: Error | null;
}

/** Writes the taps of a lesson to the device first; they are sent as soon as that works. */
export function useLessonAppend(ladder: string) {
  const queries = useQueryClient();
  const session = useQuery(sessionQuery);
  const who = session.data ? `${session.data.studio} ${session.data.teacher}` : "";
  const all = useSyncExternalStore(outbox.subscribe, outbox.all);
  const waiting = useMemo(() => all.filter((w) => w.ladder === ladder && w.who === who), [all, ladder, who]);
  const [error, setError] = useState<Error | null>(null);
  const sent = waiting.filter((w) => w.sent).map((w) => w.entry.id);
  const sentKey = sent.join(" ");
  useFlush(outbox, who);
  useEffect(() => {
    if (!sentKey) return;
    const arrived = sentKey.split(" ");
    for (const key of [["today"], ["piece"], ["overview"], ["atlas"]])
      void queries.invalidateQueries({ queryKey: key });
    // An answer that is on its way was made before these arrived.
    void queries
      .cancelQueries({ queryKey: ["ladder", ladder] })
      .then(() => queries.invalidateQueries({ queryKey: ["ladder", ladder] }))
      .then(() => outbox.settle(arrived));
  }, [sentKey, ladder, queries]);
  const append: Append = {
    mutate: (entries, then) => {
      try {
        outbox.add(ladder, who, entries);
        setError(null);
        then?.onSuccess?.();
      } catch {
        setError(new Error("This device has no room to keep the entry. Close other pages and tap again."));
      }
    },
    isPending: false,
    error,
  };
  return { append, waiting };
}
