import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { chooseAll, chooseChunk, chooseMotif, choosePattern } from "./choose";
import { firstOverlays } from "./overlays";

const bars = [0, 1, 2, 3].map((i) => ({ start: 4 * i, length: 4, beat: 1 }));
const chunk = (from: number, to: number, level: number, sameAs?: number) => ({
  from,
  to,
  level,
  sameAs,
  where: `bars ${from}–${to}`,
  start: 4 * (from - 1),
  end: 4 * to,
  why: "",
});
const piece = {
  barLabels: ["0", "1", "2", "3"],
  barTimes: bars,
  chunks: [chunk(1, 1, 0), chunk(2, 2, 0), chunk(3, 3, 0, 1), chunk(1, 2, 1)],
} as unknown as Schemas["Piece"];

describe("what is chosen", () => {
  it("finds the chunks with the same notes, whichever of them is chosen", () => {
    const [first, , third] = piece.chunks;
    expect(first && chooseChunk(piece, first).again.map((a) => a.words)).toEqual(["bars 3–3"]);
    expect(third && chooseChunk(piece, third).again.map((a) => a.words)).toEqual(["bars 1–1"]);
  });
  it("calls the bars of a pattern by their printed numbers", () => {
    const chosen = choosePattern(piece, { letter: "A", bars: [1, 4] }, 4);
    expect(chosen).toMatchObject({ title: "Pattern A, bar 3", start: 12, end: 16 });
    expect(chosen.again).toEqual([{ words: "bar 0", start: 0, end: 4 }]);
  });
  it("begins a motif at its first place", () => {
    const at = (bar: number, start: number) => ({ bar, beat: 3, start, end: start + 2 });
    const chosen = chooseMotif(piece, { name: "1", staff: 0, beats: 2, notes: 3, at: [at(1, 2), at(2, 6)] });
    expect(chosen).toMatchObject({ title: "Motif 1, bar 0, beat 3", start: 2, end: 4 });
    expect(chosen.again).toHaveLength(1);
  });
  it("ends the whole with the last bar", () => expect(chooseAll(piece).end).toBe(16));
});

describe("the marks that open first", () => {
  it("follow the way of reading", () => {
    expect(firstOverlays("direction", false)).toEqual(["direction"]);
    expect(firstOverlays("interval", true)).toEqual(["interval", "guides", "fresh"]);
    expect(firstOverlays("position", false)).toEqual(["fingers"]);
  });
});
