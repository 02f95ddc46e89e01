import { expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";
import { spans } from "./spans";

const piece = {
  barTimes: [0, 1, 2, 3].map((i) => ({ start: 4 * i, length: 4, beat: 1 })),
} as unknown as Schemas["Piece"];
// Two bars on each of two systems, a hundred pixels wide.
const places = {
  bar: (bar: number) => ({
    x: 100 * ((bar - 1) % 2),
    y: bar > 2 ? 300 : 0,
    width: 100,
    height: 40,
  }),
} as unknown as Places;

it("cuts a stretch at the end of a system and finds beats within bars", () => {
  expect(spans(piece, places, 3, 10)).toEqual([
    { x: 75, y: 0, width: 125, height: 40, begins: true, ends: false },
    { x: 0, y: 300, width: 50, height: 40, begins: false, ends: true },
  ]);
});

it("is one box for bars beside each other", () => {
  expect(spans(piece, places, 0, 8)).toEqual([
    { x: 0, y: 0, width: 200, height: 40, begins: true, ends: true },
  ]);
});
