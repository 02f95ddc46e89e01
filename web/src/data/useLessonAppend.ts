import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { Refusal } from "../contract/client";
import { device } from "./device";
import { logged, sendEntries } from "./entries";
import { announceAnew } from "./facts";
import { type Entry, Outbox } from "./outbox";
import { sessionQuery } from "./people";
import { useFlush } from "./useFlush";
import { useSettled } from "./useSettled";

/** The outbox of this device. */
export const outbox = new Outbox(
  device,
  async (ladder, entries) => {
    await sendEntries(ladder, entries);
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
  const who = session.data?.id ?? "";
  // Until this build entries were kept under names, which two studios may share.
  const named = session.data ? `${session.data.studio} ${session.data.teacher}` : "";
  useEffect(() => {
    if (who) outbox.adopt(named, who);
  }, [named, who]);
  const all = useSyncExternalStore(outbox.subscribe, outbox.all);
  const waiting = useMemo(() => all.filter((w) => w.ladder === ladder && w.who === who), [all, ladder, who]);
  const [error, setError] = useState<Error | null>(null);
  const sent = waiting.filter((w) => w.sent).map((w) => w.entry.id);
  useFlush(outbox, who);
  // An answer that is on its way was made before these arrived.
  useSettled(
    sent,
    () => announceAnew(queries, logged(ladder)),
    (ids) => outbox.settle(ids),
  );
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
