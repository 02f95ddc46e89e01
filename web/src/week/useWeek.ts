import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { body, client, Refusal, type Schemas } from "../contract/client";
import { weekQuery } from "../data/queries";
import type { Hand } from "./hand";

const changedOf = (e: Error | null) =>
  e instanceof Refusal && e.status === 409 && (e.answer as Schemas["WeekChanged"] | undefined)?.changes
    ? (e.answer as Schemas["WeekChanged"])
    : undefined;

/** The week of a ladder, changed by hand and solved again, and published. */
export function useWeek(ladder: string) {
  const week = useQuery(weekQuery(ladder));
  const queries = useQueryClient();
  const w = week.data;
  const key = weekQuery(ladder).queryKey;
  const at = { params: { path: { ladder }, query: { day: w?.start } } };
  const after = {
    onSuccess: (done: NonNullable<typeof w>) => queries.setQueryData(key, done),
    // What was changed elsewhere is shown beside the refusal.
    onError: () => queries.invalidateQueries({ queryKey: key }),
  };
  const solve = useMutation({
    mutationFn: (hand: Hand) => body(client.PUT("/ladders/{ladder}/week", { ...at, body: hand })),
    ...after,
  });
  const publishing = useMutation({
    mutationFn: (p: { version: number; plan: string; asShown?: boolean }) =>
      body(client.POST("/ladders/{ladder}/week/publish", { ...at, body: p })),
    onSuccess: after.onSuccess,
    // The week stays as it was shown until the teacher chose; any other refusal shows it as it is now.
    onError: (e: Error) => (changedOf(e) ? undefined : after.onError()),
  });
  return {
    week,
    w,
    change: (hand: Hand) => w && solve.mutate({ ...hand, version: w.hand.version }),
    publish: () => w && publishing.mutate({ version: w.hand.version, plan: w.plan }),
    /** What would be planned otherwise by now, when publishing found that. */
    changed: changedOf(publishing.error),
    publishAsShown: () => w && publishing.mutate({ version: w.hand.version, plan: w.plan, asShown: true }),
    showNew: () => {
      publishing.reset();
      void queries.invalidateQueries({ queryKey: key });
    },
    busy: solve.isPending || publishing.isPending,
    error: solve.error ?? (changedOf(publishing.error) ? null : publishing.error),
  };
}
