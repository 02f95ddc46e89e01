import type { Schemas } from "../contract/client";
import type { Box, Places } from "./engraver";

/** A stretch of the piece on one system. */
export interface Span extends Box {
  /** Whether the stretch begins and ends on this system. */
  begins: boolean;
  ends: boolean;
}

/** Where a stretch of the piece stands: a box on each system that it touches. */
export function spans(piece: Schemas["Piece"], places: Places, start: number, end: number): Span[] {
  const out: Span[] = [];
  piece.barTimes.forEach((t, i) => {
    const box = places.bar(i + 1);
    if (!box || t.start >= end - 1e-6 || t.start + t.length <= start + 1e-6) return;
    const from = Math.max(0, (start - t.start) / t.length);
    const to = Math.min(1, (end - t.start) / t.length);
    const x = box.x + box.width * from;
    const width = box.width * (to - from);
    const last = out.at(-1);
    const begins = start >= t.start - 1e-6;
    const ends = end <= t.start + t.length + 1e-6;
    if (last && Math.abs(last.y - box.y) < 1) {
      last.width = x + width - last.x;
      last.ends = ends;
    } else out.push({ x, y: box.y, width, height: box.height, begins, ends });
  });
  return out;
}
