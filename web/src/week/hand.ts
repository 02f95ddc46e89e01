import type { Schemas } from "../contract/client";

/** What the teacher set by hand in a week. */
export type Hand = Schemas["WeekByHand"];

const without = <T>(list: T[] | undefined, is: (x: T) => boolean) => (list ?? []).filter((x) => !is(x));

/** Gives an item a day of its own; the rest is solved around it. */
export const pin = (h: Hand, item: string, day: string): Hand => ({
  ...putBack(h, item),
  pins: [...without(h.pins, (p) => p.item === item), { item, day }],
});

/** Takes an item out of the week. */
export const drop = (h: Hand, item: string): Hand => ({
  ...free(h, item),
  drops: [...without(h.drops, (d) => d === item), item],
});

/** Puts an item back that was taken out. */
export const putBack = (h: Hand, item: string): Hand => ({
  ...h,
  drops: without(h.drops, (d) => d === item),
});

/** Leaves an item to the program again. */
export const free = (h: Hand, item: string): Hand => ({
  ...putBack(h, item),
  pins: without(h.pins, (p) => p.item === item),
  times: without(h.times, (t) => t.item === item),
});

/** Says how often an item is played. */
export const often = (h: Hand, item: string, times: number): Hand => ({
  ...h,
  times: [...without(h.times, (t) => t.item === item), { item, times }],
});

/** Gives or takes a day of this week, whatever the weekday says. */
export const practise = (h: Hand, day: string, practice: boolean): Hand => ({
  ...h,
  days: [...without(h.days, (d) => d.day === day), { day, practice }],
});

/** Adds a learned piece, or takes it away again. */
export const add = (h: Hand, material: string, on: boolean): Hand => ({
  ...h,
  adds: on ? [...without(h.adds, (a) => a === material), material] : without(h.adds, (a) => a === material),
});

/** Lets what home showed of a step not count this week, or count again. */
export const setAside = (h: Hand, item: string, on: boolean): Hand => ({
  ...h,
  aside: on ? [...without(h.aside, (a) => a === item), item] : without(h.aside, (a) => a === item),
});

/** Says whether anything of the week was set by hand. */
export const touched = (h: Hand) =>
  [h.days, h.drops, h.pins, h.times, h.adds, h.aside].some((list) => (list ?? []).length > 0) ||
  (h.minutes ?? 0) > 0 ||
  (h.words ?? "") !== "";
