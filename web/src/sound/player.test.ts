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
  it("counts a whole bar before an upbeat, and what of its bar comes before it", () => {
    const upbeat = [0, 1, 2, 3, 4, 5, 6].map((at) => ({ at, first: at === 1 || at === 4 })); // three-four, one beat before it
    const plan = schedule({ notes: [], beats: upbeat, start: 0, end: 7, tempo: 60, click: true });
    expect(plan.lead).toBe(5);
    expect(plan.clicks.filter((c) => c.first).map((c) => c.at)).toEqual([0, 3, 6, 9]);
    const within = schedule({ notes, beats, start: 6, end: 8, tempo: 60, click: true });
    expect(within.lead).toBe(2 * 4 - 2);
    const short = schedule({ notes, beats: beats.slice(0, 2), start: 0, end: 2, tempo: 60, click: true });
    expect(short.lead).toBe(2);
  });
});
