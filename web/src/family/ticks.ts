import type { Schemas } from "../contract/client";

export type Tick = Schemas["FamilyTick"];
export type Item = Schemas["FamilyItem"];

/** What was ticked, with what still waits on this device; what was taken back is gone. */
export function ticked(known: Tick[], waiting: Tick[]): Tick[] {
  const all = [...known, ...waiting.filter((w) => !known.some((k) => k.id === w.id))];
  const undone = new Set(all.filter((t) => t.kind === "undo").map((t) => t.undoes));
  return all.filter((t) => t.kind !== "undo" && !undone.has(t.id));
}

/** What was written and still waits on this device. */
export const written = (waiting: Tick[], kind: Tick["kind"]) => waiting.filter((w) => w.kind === kind);

/** The tick of one thing on a day. */
export const doneOn = (ticks: Tick[], day: string, item: string) =>
  ticks.find((t) => t.kind === "done" && t.day === day && t.item === item);

/** The key of what was chosen to be played first on a day; the last choice holds. */
export function firstOn(ticks: Tick[], day: string, items: Item[]): string | undefined {
  const chosen = ticks.filter((t) => t.kind === "first" && t.day === day).at(-1);
  return items.find((i) => i.key === chosen?.item || i.material === chosen?.item)?.key;
}

/** The things of a day in their order, the one that was chosen first in front. */
export function inOrder(items: Item[], first: string | undefined): Item[] {
  const chosen = items.find((i) => i.key === first);
  return chosen ? [chosen, ...items.filter((i) => i !== chosen)] : items;
}

/** Where to begin: the day of today if the week has it, else the nearest one. */
export function dayToOpen(days: { date: string }[], today: string): string | undefined {
  if (days.some((d) => d.date === today)) return today;
  const first = days[0]?.date;
  return first && today < first ? first : days.at(-1)?.date;
}
