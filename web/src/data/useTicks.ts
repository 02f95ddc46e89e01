import { useQueryClient } from "@tanstack/react-query";
import { useMemo, useState, useSyncExternalStore } from "react";
import { ulid } from "ulid";
import { body, client, Refusal, type Schemas } from "../contract/client";
import { type Tick, ticked } from "../family/ticks";
import { clock } from "./clock";
import { device } from "./device";
import { familyQuery } from "./home";
import { amendKept } from "./kept";
import { Outbox } from "./outbox";
import { useFlush } from "./useFlush";
import { useSettled } from "./useSettled";

const family = "family";

/** What is ticked on this device, kept until the server has it. */
const outbox = new Outbox<Tick>(
  device,
  async (token, ticks) => {
    await body(client.POST("/family/{token}/ticks", { params: { path: { token } }, body: { ticks } }));
    // Without a connection the page is shown as it was kept: with these.
    amendKept<Schemas["FamilyPage"]>(`at home ${token}`, (p) => ({ ...p, ticks: ticked(p.ticks, ticks) }));
  },
  (e) => (e instanceof Refusal && e.status < 500 && e.status !== 429 ? e.message : undefined),
  4_000,
  "tick ",
);

/** Writes ticks to the device first; they are sent as soon as that works. */
export function useTicks(token: string) {
  const queries = useQueryClient();
  const all = useSyncExternalStore(outbox.subscribe, outbox.all);
  const mine = useMemo(() => all.filter((w) => w.ladder === token), [all, token]);
  const [full, setFull] = useState(false);
  const sent = mine.filter((w) => w.sent).map((w) => w.entry.id);
  useFlush(outbox, family);
  useSettled(
    sent,
    async () => {
      const key = familyQuery(token).queryKey;
      await queries.cancelQueries({ queryKey: key });
      await queries.invalidateQueries({ queryKey: key });
    },
    (ids) => outbox.settle(ids),
  );
  return {
    waiting: mine.filter((w) => !w.refused).map((w) => w.entry),
    refused: mine.filter((w) => w.refused),
    unsent: mine.filter((w) => !w.refused && !w.sent).length,
    full,
    forget: (id: string) => outbox.forget(id),
    tick: (t: Omit<Tick, "id" | "at">) => {
      try {
        outbox.add(token, family, [{ id: ulid(), at: clock.moment(), ...t }]);
      } catch {
        setFull(true);
      }
    },
  };
}
