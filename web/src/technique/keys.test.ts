import { Key } from "tonal";
import { describe, expect, it } from "vitest";
import { keysFor, nextKey, place, sign } from "./keys";

describe("the keys of a cycle", () => {
  it("are twelve places, each once", () => {
    for (const kind of ["major", "harmonic-minor"])
      expect(new Set(keysFor(kind).map(place)).size, kind).toBe(12);
  });

  it("go up by fifths", () => {
    for (const kind of ["major", "melodic-minor"]) {
      const keys = keysFor(kind).map(place);
      keys.forEach(
        (k, i) => void expect((keys[(i + 1) % 12] ?? 0) - k).toSatisfy((d: number) => (d + 12) % 12 === 7),
      );
    }
  });

  // Source: tonal (npm), a library of music theory.
  it("name the minor keys that have the signs of the major ones", () => {
    const minor = keysFor("natural-minor");
    keysFor("major").forEach((k, i) => {
      const theirs = Key.majorKey(k).minorRelative;
      expect(place(minor[i] ?? ""), k).toBe(place(theirs));
    });
  });

  it("stay the same key on the keyboard when the kind changes", () => {
    expect(nextKey("A", "harmonic-minor")).toBe("A");
    expect(nextKey("Db", "harmonic-minor")).toBe("C#");
    expect(nextKey("G#", "major")).toBe("Ab");
    for (const k of keysFor("major")) expect(place(nextKey(k, "melodic-minor"))).toBe(place(k));
  });

  it("are printed with their signs", () => {
    expect(["Bb", "F#", "B", "Ebb"].map(sign)).toEqual(["B♭", "F♯", "B", "E♭♭"]);
  });
});
