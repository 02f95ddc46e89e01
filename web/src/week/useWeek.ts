import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { body, client } from "../contract/client";
import { weekQuery } from "../data/queries";
import type { Hand } from "./hand";

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
    mutationFn: (version: number) =>
      body(client.POST("/ladders/{ladder}/week/publish", { ...at, body: { version } })),
    ...after,
  });
  return {
    week,
    w,
    change: (hand: Hand) => w && solve.mutate({ ...hand, version: w.hand.version }),
    publish: () => w && publishing.mutate(w.hand.version),
    busy: solve.isPending || publishing.isPending,
    error: solve.error ?? publishing.error,
  };
}
