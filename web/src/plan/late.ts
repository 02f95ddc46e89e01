import type { Schemas } from "../contract/client";

type Segment = Pick<Schemas["PlanSegment"], "id" | "kind" | "title" | "minutes" | "least">;

/** How a lesson stands against its plan, and what would bring it home in time. */
export interface Late {
  /** Minutes that are missing for what is still planned; 0 when it is in time. */
  by: number;
  /** What to shorten, and to how many minutes. */
  shorten: { title: string; to: number }[];
  /** What to leave out, when shortening is not enough. */
  leaveOut: string[];
}

/**
 * Compares what is planned from a segment on with the minutes that are left.
 * The segments that can give most are shortened first, each to no less than is
 * worth beginning; then whole ones are left out, the last first. The closing stays.
 */
export function lateness(segments: Segment[], at: number, gone: number, minutes: number): Late {
  const rest = segments.slice(at);
  const before = segments.slice(0, at).reduce((n, s) => n + s.minutes, 0);
  const here = segments[at];
  // What the segment of the moment has had already is not planned any more.
  const had = here ? Math.min(Math.max(0, gone - before), here.minutes - 1) : 0;
  const planned = rest.reduce((n, s) => n + s.minutes, 0) - had;
  let missing = planned - Math.max(0, minutes - gone);
  const out: Late = { by: Math.max(0, missing), shorten: [], leaveOut: [] };
  const later = rest.slice(1).filter((s) => s.kind !== "closing");
  const given = new Map<string, number>();
  for (const s of [...later].sort((a, b) => b.minutes - b.least - (a.minutes - a.least))) {
    if (missing <= 0) break;
    const gives = Math.min(missing, s.minutes - s.least);
    if (gives <= 0) continue;
    given.set(s.id, gives);
    missing -= gives;
  }
  for (const s of [...later].reverse()) {
    if (missing <= 0) break;
    missing -= s.minutes - (given.get(s.id) ?? 0);
    given.delete(s.id);
    out.leaveOut.push(s.title);
  }
  for (const s of later) {
    const gives = given.get(s.id);
    if (gives) out.shorten.push({ title: s.title, to: s.minutes - gives });
  }
  return out;
}

/** The segment that the clock is in, by place. */
export function segmentAt(segments: Pick<Segment, "minutes">[], gone: number): number {
  let end = 0;
  for (const [i, s] of segments.entries()) {
    end += s.minutes;
    if (gone < end) return i;
  }
  return Math.max(0, segments.length - 1);
}
