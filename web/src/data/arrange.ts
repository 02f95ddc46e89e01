import { useState } from "react";
import type { Schemas } from "../contract/client";
import type { Order } from "../ladder/order";
import { arranged, sendOrder } from "./ladder";
import { useSend } from "./queryClient";

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
  const [trial, setTrial] = useState<Trial>();
  const send = (order: Order, only: boolean) => sendOrder(ladder, version ?? 0, order, only);
  const attempt = useSend(
    (order: Order) => send(order, true),
    [],
    (done, order) => setTrial({ order, view: done.ladder, changes: done.changes }),
  );
  const keep = useSend(
    (order: Order) => send(order, false),
    arranged(ladder),
    () => setTrial(undefined),
  );
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
