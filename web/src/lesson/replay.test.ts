import { describe, expect, it } from "vitest";
import golden from "../../../core/student/standing/testdata/every-kind.json";
import type { Schemas } from "../contract/client";
import type { Entry } from "../data/outbox";
import { withPending } from "./pending";

/**
 * What core writes: a log with every kind of entry, and what it folds to before
 * the last lesson and after it. The page replays that lesson without a connection
 * and must come to the same.
 */
type Folded = {
  state: string;
  marks: Record<string, string>;
  spots: { id: string; from: number; to: number; mended: boolean }[];
  runs: { id: string; met: string[]; cleared: boolean }[];
  gate?: string;
  lastRating: number;
};

const pieces = ["p1", "p2", "p3"] as const;
const before = golden.before.materials as unknown as Record<string, Folded>;
const after = golden.after.materials as unknown as Record<string, Folded>;

const spots = (m?: Folded) => (m?.spots ?? []).map(({ id, from, to, mended }) => ({ id, from, to, mended }));
const runs = (m?: Folded) =>
  (m?.runs ?? []).map(({ id, met, cleared }) => ({ id, met: [...met].sort(), cleared }));

const lesson = {
  pieces: pieces.map((material) => ({
    material,
    title: material,
    state: before[material]?.state,
    gate: before[material]?.gate,
    barLabels: ["1", "2", "3", "4", "5", "6", "7", "8"],
    points: golden.points[material].map((p) => ({ ...p, mark: before[material]?.marks[p.id], history: [] })),
    faults: [],
    spots: spots(before[material]),
    runs: runs(before[material]),
    why: "",
  })),
  reviews: [{ material: "p1", title: "p1", heardToday: false }],
  bites: [{ skill: "ties" }, { skill: "rests" }],
  standard: golden.standard.map((id) => ({ id, name: id })),
  log: [],
} as unknown as Schemas["Lesson"];

describe("a lesson replayed without a connection", () => {
  const sent = golden.entries.slice(golden.lesson) as unknown as Entry[];
  const shown = withPending(lesson, sent);
  it.each(pieces)("comes to what core folds %s to", (material) => {
    const piece = shown.pieces.find((p) => p.material === material);
    const folded = after[material];
    expect(piece?.state).toBe(folded?.state);
    expect(
      Object.fromEntries((piece?.points ?? []).filter((p) => p.mark).map((p) => [p.id, p.mark])),
    ).toEqual(folded?.marks);
    expect(piece?.spots.map(({ id, from, to, mended }) => ({ id, from, to, mended }))).toEqual(spots(folded));
    expect(piece?.runs.map(({ id, met, cleared }) => ({ id, met: [...met].sort(), cleared }))).toEqual(
      runs(folded),
    );
    expect(piece?.gate).toBe(folded?.gate);
  });
  it("has the hearing, and no bite that was done", () => {
    expect(shown.reviews).toMatchObject([{ heardToday: true, rating: after.p1?.lastRating }]);
    expect(shown.bites.map((b) => b.skill)).toEqual(
      ["ties", "rests"].filter((s) => !(s in golden.after.planted)),
    );
  });
  it("logs what counts, without what was taken back", () => {
    const gone = new Set(sent.filter((e) => e.kind === "correction").flatMap((e) => [e.id, e.corrects]));
    expect(shown.log.map((l) => l.id)).toEqual(sent.map((e) => e.id).filter((id) => !gone.has(id)));
  });
});
