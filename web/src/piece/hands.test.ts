import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { changesOf, handName, positionAt, used, where } from "./hands";

const position = (name: string, fromBar: number, toBar: number, start: number) => ({
  name,
  keys: [60],
  fromBar,
  toBar,
  start,
  end: start + 4,
});
const line = (hand: string, positions: ReturnType<typeof position>[], fingers: object[] = []) =>
  ({ hand, positions, fingers }) as unknown as Schemas["Line"];
const right = line("right", [position("C position", 1, 2, 0), position("G position", 3, 4, 8)]);
const left = line("left", [position("C position", 1, 1, 0), position("F position", 2, 4, 4)]);

describe("the hands in the course of a piece", () => {
  it("names every change once, in order", () => expect(changesOf([right, left])).toEqual([0, 4, 8]));
  it("finds the position at a time, the first before it begins", () => {
    expect(positionAt(right, 7.9).name).toBe("C position");
    expect(positionAt(right, 8).name).toBe("G position");
    expect(positionAt(left, -1).name).toBe("C position");
  });
  it("says the bars in printed numbers", () => {
    const piece = { barLabels: ["0", "1", "2", "3"] } as unknown as Schemas["Piece"];
    expect(where(piece, right.positions[0])).toBe("bars 0–1");
    expect(where(piece, left.positions[0])).toBe("bar 0");
    expect(where(piece, undefined)).toBe("");
  });
  it("says whose hand it is, and nothing of a part that is not divided", () => {
    expect([right, left, line("part", [])].map(handName)).toEqual(["Right: ", "Left: ", ""]);
  });
  it("lists every stop of a position once", () => {
    const finger = (bar: number, string: number, pitch: number) => ({ bar, string, pitch });
    const cello = line(
      "part",
      [position("first position", 1, 2, 0)],
      [finger(1, 1, 57), finger(1, 1, 59), finger(2, 1, 59), finger(3, 2, 52), finger(2, 0, 50)],
    );
    const stops = used([{ line: cello, position: positionAt(cello, 0) }]);
    expect(stops.map((f) => f.pitch)).toEqual([57, 59]);
  });
});
