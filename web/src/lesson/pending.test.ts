import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import type { Entry } from "../data/outbox";
import { withPending } from "./pending";

const lesson = {
  pieces: [
    {
      material: "M",
      title: "Fog",
      state: "working",
      barLabels: ["0", "1", "2"],
      points: [{ id: "a", text: "steady pulse", own: false }],
      faults: [{ id: "fault.late-thumb", text: "the thumb comes late", look: "" }],
      spots: [],
      runs: [],
      why: "",
    },
  ],
  reviews: [{ material: "R", title: "Gulls", heardToday: false }],
  bites: [{ skill: "ties" }],
  standard: [
    { id: "notes", name: "Right notes" },
    { id: "flow", name: "No stop" },
  ],
  log: [{ id: "old", at: "", kind: "note", text: "earlier" }],
} as unknown as Schemas["Lesson"];

let n = 0;
const e = (kind: Entry["kind"], more: Partial<Entry> = {}): Entry => ({
  id: `e${n++}`,
  at: "2026-01-05T15:00:00Z",
  kind,
  material: "M",
  ...more,
});

describe("a lesson with what waits on the device", () => {
  it("shows a fault that was seen", () => {
    const out = withPending(lesson, [e("mark", { focus: "fault.late-thumb", mark: "none" })]);
    expect(out.pieces[0]?.faults[0]?.mark).toBe("none");
    expect(out.log.at(-1)?.text).toBe("the thumb comes late: none");
  });

  it("shows marks, spots, ratings, bites and a cleared run before the server knows them", () => {
    const spot = e("spotAdded", { from: 2, to: 3 });
    const out = withPending(lesson, [
      e("mark", { focus: "a", mark: "full" }),
      spot,
      e("hearing", { material: "R", rating: 3 }),
      e("stepDone", { skill: "ties", step: 1 }),
      e("run", { met: ["notes", "flow"] }),
    ]);
    const piece = out.pieces[0];
    expect(piece?.points[0]?.mark).toBe("full");
    expect(piece?.spots[0]?.where).toBe("bars 1–2");
    expect(piece?.state).toBe("cleared");
    expect(out.reviews[0]?.heardToday).toBe(true);
    expect(out.bites).toEqual([]);
    expect(out.log.map((l) => l.text)).toEqual([
      "earlier",
      "steady pulse: full",
      "A hard spot",
      "“Gulls” heard: 3 of 4",
      "Preview step 1",
      "Run of “Fog”: cleared",
    ]);
    expect(withPending(lesson, [spot, e("spotMended", { spot: spot.id })]).pieces[0]?.spots[0]?.mended).toBe(
      true,
    );
  });

  it("says what a run missed, and takes back what was corrected, sent or not", () => {
    const run = e("run", { met: ["notes"] });
    expect(withPending(lesson, [run]).pieces[0]?.why).toContain("no stop not yet");
    const out = withPending(lesson, [
      run,
      e("correction", { corrects: run.id }),
      e("correction", { corrects: "old" }),
    ]);
    expect(out.log).toEqual([]);
    expect(out.pieces[0]?.runs).toEqual([]);
  });

  it("counts an entry once that the server knows already", () => {
    const known = { ...e("note", { text: "earlier" }), id: "old" };
    expect(withPending(lesson, [known]).log).toHaveLength(1);
  });
});
