import { describe, expect, it } from "vitest";
import { isBlack, layOut, w } from "./keyboard";

describe("a stretch of the keyboard", () => {
  it("has five black keys to seven white ones", () => {
    const octave = Array.from({ length: 12 }, (_, i) => 60 + i);
    expect(octave.filter(isBlack)).toEqual([61, 63, 66, 68, 70]);
  });
  it("holds what it is asked for, and begins with a group of keys", () => {
    for (const held of [[60, 67], [48, 72], [21, 25], [104, 108], [66]]) {
      const { keys } = layOut(held);
      for (const k of held) expect(keys).toContain(k);
      expect(keys.length).toBeGreaterThanOrEqual(5);
      expect(keys.every((k) => k >= 21 && k <= 108)).toBe(true);
      expect([0, 5, 9]).toContain((keys[0] ?? 0) % 12); // C, F, or the lowest A of a piano
    }
  });
  it("sets black keys between their neighbours", () => {
    const { x } = layOut([60, 72]);
    expect(x(62) - x(60)).toBe(w);
    expect(x(61)).toBeGreaterThan(x(60));
    expect(x(61) + 18).toBeLessThan(x(62) + w);
    expect(x(65) - x(64)).toBe(w); // E and F have no black key between them
  });
});
