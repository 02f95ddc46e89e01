import type { Schemas } from "../contract/client";

/** What the teacher set by hand in a plan. */
export type Hand = Schemas["PlanByHand"];

const without = (list: string[] | undefined, id: string) => (list ?? []).filter((x) => x !== id);

/** Keeps a segment in, with its minutes, or 0 for any. */
export const pin = (h: Hand, segment: string, minutes: number): Hand => ({
  ...h,
  pins: [...(h.pins ?? []).filter((p) => p.segment !== segment), { segment, minutes }],
  drops: without(h.drops, segment),
});

/** Leaves it to the choice again. */
export const free = (h: Hand, segment: string): Hand => ({
  ...h,
  pins: (h.pins ?? []).filter((p) => p.segment !== segment),
  drops: without(h.drops, segment),
});

/** Leaves a segment out. */
export const drop = (h: Hand, segment: string): Hand => ({
  ...free(h, segment),
  drops: [...without(h.drops, segment), segment],
});

/** Moves a segment by some places; the opening stays first and the closing last. */
export function move(
  h: Hand,
  segments: Pick<Schemas["PlanSegment"], "id" | "kind">[],
  id: string,
  by: number,
): Hand {
  const inner = segments.filter((s) => s.kind !== "opening" && s.kind !== "closing").map((s) => s.id);
  const at = inner.indexOf(id);
  const to = Math.min(Math.max(at + by, 0), inner.length - 1);
  if (at < 0 || to === at) return h;
  inner.splice(at, 1);
  inner.splice(to, 0, id);
  return { ...h, order: inner };
}

/** The minute at which each segment begins. */
export function starts(segments: Pick<Schemas["PlanSegment"], "minutes">[]): number[] {
  let at = 0;
  return segments.map((s) => {
    const here = at;
    at += s.minutes;
    return here;
  });
}
