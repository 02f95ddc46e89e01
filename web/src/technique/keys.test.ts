import { Note } from "tonal";
import { describe, expect, it } from "vitest";
import { place, sign } from "./keys";

describe("keys", () => {
  // Source: tonal (npm), a library of music theory.
  it("lie where they lie in the octave", () => {
    for (const key of ["C", "C#", "Db", "D", "Eb", "F", "F#", "Gb", "B", "Cb", "B#"])
      expect(place(key), key).toBe(Note.chroma(key));
  });

  it("are printed with their signs", () => {
    expect(["Bb", "F#", "B", "Ebb"].map(sign)).toEqual(["B♭", "F♯", "B", "E♭♭"]);
  });
});
