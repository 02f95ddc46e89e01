import { describe, expect, it } from "vitest";
import { schedule } from "./player";

const beats = [0, 1, 2, 3, 4, 5, 6, 7].map((at) => ({ at, first: at % 4 === 0 }));
const notes = [0, 1, 2, 4].map((at) => ({ at, length: at === 2 ? 2 : 1, midi: 60 + at }));

describe("what sounds when", () => {
  it("plays a stretch at its tempo", () => {
    const plan = schedule({ notes, beats, start: 1, end: 3, tempo: 120, click: false });
    expect(plan.notes).toEqual([
      { from: 0, to: 0.5, midi: 61 },
      { from: 0.5, to: 1, midi: 62 },
    ]);
    expect(plan.length).toBe(1);
    expect(plan.clicks).toEqual([]);
  });
  it("counts one bar in when it clicks", () => {
    const plan = schedule({ notes, beats, start: 0, end: 8, tempo: 60, click: true });
    expect(plan.lead).toBe(4);
    expect(plan.notes[0]?.from).toBe(4);
    expect(plan.clicks.map((c) => c.at)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11]);
    expect(plan.clicks.filter((c) => c.first)).toHaveLength(3);
  });
});
