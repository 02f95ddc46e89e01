import type { Schemas } from "../contract/client";

/** How much of the time is drawn. */
export type Zoom = "month" | "term" | "year" | "whole";

export const zooms: Record<Zoom, { name: string; days: number; perLeap: number; least: number }> = {
  month: { name: "A month", days: 31, perLeap: 44, least: 46 },
  term: { name: "A term", days: 120, perLeap: 30, least: 44 },
  year: { name: "A year", days: 365, perLeap: 22, least: 36 },
  whole: { name: "Everything", days: Number.POSITIVE_INFINITY, perLeap: 8, least: 20 },
};

const day = 24 * 60 * 60 * 1000;

export interface Part {
  rail: Schemas["Rail"];
  /** How many rungs further up and further down are left out. */
  above: number;
  below: number;
}

/**
 * Leaves out what lies farther away in time than the zoom shows: rungs ahead
 * that begin later (one without a date stays), learned ones that were played and cleared longer ago. The
 * next rung of every strand, everything in work, and the rung that was asked for always show.
 */
export function within(view: Schemas["LadderView"], zoom: Zoom, asked?: string): Part[] {
  const today = Date.parse(view.day);
  const reach = zooms[zoom].days * day;
  const near = (date?: string) => date !== undefined && Math.abs(Date.parse(date) - today) <= reach;
  return view.rails.map((rail) => {
    const { rungs } = rail;
    const firstAhead = rungs.findIndex((r) => r.layer === "ahead" || r.layer === "preview");
    const begun = firstAhead < 0 ? rungs.length : firstAhead;
    let from = rungs.findIndex(
      (r, i) => i >= begun || r.layer === "working" || near(r.lastPlayed) || near(r.cleared),
    );
    if (from < 0) from = Math.max(0, begun - 1);
    const at = rungs.findIndex((r) => r.material === asked);
    if (at >= 0) from = Math.min(from, at);
    let to = rungs.length;
    // Without lesson times nobody knows when a rung begins: then all are drawn.
    const far = (date?: string) => date !== undefined && date !== "" && !near(date);
    while (to > Math.max(begun, at) + 1 && far(rungs[to - 1]?.begins?.median)) to--;
    return { rail: { ...rail, rungs: rungs.slice(from, to) }, above: rungs.length - to, below: from };
  });
}
