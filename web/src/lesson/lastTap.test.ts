import { expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { withMarks } from "../data/entries";
import { LastTap } from "./lastTap";

it("takes the second of a double tap for none, and a later or another tap for one", () => {
  const tap = new LastTap();
  expect(tap.repeats("a", "full", 0)).toBe(false);
  expect(tap.repeats("a", "full", 200)).toBe(true);
  expect(tap.repeats("a", "part", 300)).toBe(false);
  expect(tap.repeats("b", "part", 400)).toBe(false);
  expect(tap.repeats("b", "part", 5000)).toBe(false);
});

it("shows a mark before the server has answered, on its own piece only", () => {
  const point = { id: "f", text: "pulse", own: true, history: [] };
  const lesson = {
    pieces: [
      { material: "m", points: [point] },
      { material: "n", points: [point] },
    ],
  };
  const shown = withMarks(lesson as unknown as Schemas["Lesson"], [
    { id: "e", at: "", kind: "mark", material: "m", focus: "f", mark: "part" },
  ]);
  expect(shown.pieces.map((p) => p.points[0]?.mark)).toEqual(["part", undefined]);
});
