import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { beatsOf, degreeOf, keysOf, soundsOf } from "./notes";

const c = {
  octaves: 1,
  up: {
    midi: [60, 62, 64, 65, 67, 69, 71, 72],
    right: [1, 2, 3, 1, 2, 3, 4, 5],
    left: [5, 4, 3, 2, 1, 3, 2, 1],
    notes: [],
  },
  down: { midi: [72, 71, 69, 67, 65, 64, 62, 60], right: [], left: [], notes: [] },
} as unknown as Schemas["Scale"];

describe("a scale at the keyboard", () => {
  it("has the left hand an octave lower, with its own fingers", () => {
    expect(keysOf(c, "left")[0]).toEqual({ midi: 48, left: 5, degree: 1 });
    expect(keysOf(c, "right").at(-1)).toEqual({ midi: 72, right: 5, degree: 1 });
  });

  it("sounds up and down again, together or one hand alone", () => {
    expect(soundsOf(c, "right").map((n) => n.midi)).toEqual([
      60, 62, 64, 65, 67, 69, 71, 72, 71, 69, 67, 65, 64, 62, 60,
    ]);
    expect(soundsOf(c, "both")).toHaveLength(30);
    expect(soundsOf(c, "left")[0]?.midi).toBe(48);
    expect(beatsOf(c)).toHaveLength(15);
  });

  it("goes apart from one note and comes back in contrary motion", () => {
    const at = (t: number) =>
      soundsOf(c, "contrary")
        .filter((n) => n.at === t)
        .map((n) => n.midi);
    expect(at(0)).toEqual([60, 60]);
    expect(at(1)).toEqual([62, 59]);
    expect(at(7)).toEqual([72, 48]);
    expect(at(8)).toEqual([71, 50]);
    expect(at(14)).toEqual([60, 60]);
  });

  it("counts degrees anew in each octave", () => {
    expect([0, 6, 7, 13, 14].map((i) => degreeOf(i, 15, 2))).toEqual([1, 7, 1, 7, 1]);
  });
});
