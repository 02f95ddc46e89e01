import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { body, client, type Schemas } from "../contract/client";
import type { Order } from "../ladder/order";

/** A new order of the rungs that is only tried so far, and what it would do. */
export interface Trial {
  order: Order;
  view: Schemas["LadderView"];
  changes: Schemas["Consequence"][];
}

/**
 * Arranges the rungs of a ladder: an order is tried first and shown as it would
 * be; kept, it is saved; undone, nothing has happened.
 */
export function useArrange(ladder: string, version?: number) {
  const queries = useQueryClient();
  const [trial, setTrial] = useState<Trial>();
  const send = (order: Order, only: boolean) =>
    body(
      client.PUT("/ladders/{ladder}/rungs", {
        params: { path: { ladder }, query: only ? { try: true } : {} },
        body: { version: version ?? 0, rungs: order },
      }),
    );
  const attempt = useMutation({
    mutationFn: (order: Order) => send(order, true),
    onSuccess: (done, order) => setTrial({ order, view: done.ladder, changes: done.changes }),
  });
  const keep = useMutation({
    mutationFn: (order: Order) => send(order, false),
    onSuccess: () => setTrial(undefined),
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ["ladder", ladder] }),
        queries.invalidateQueries({ queryKey: ["today"] }),
        queries.invalidateQueries({ queryKey: ["overview"] }),
        queries.invalidateQueries({ queryKey: ["piece"] }),
      ]),
  });
  return {
    trial,
    attempt: attempt.mutate,
    keep: () => trial && keep.mutate(trial.order),
    undo: () => {
      setTrial(undefined);
      attempt.reset();
      keep.reset();
    },
    busy: attempt.isPending || keep.isPending,
    error: attempt.error ?? keep.error,
  };
}
