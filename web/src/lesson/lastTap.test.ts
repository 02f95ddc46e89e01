import { expect, it } from "vitest";
import { LastTap } from "./lastTap";

it("takes the second of a double tap for none, and a later or another tap for one", () => {
  const tap = new LastTap();
  expect(tap.repeats("a", "full", 0)).toBe(false);
  expect(tap.repeats("a", "full", 200)).toBe(true);
  expect(tap.repeats("a", "part", 300)).toBe(false);
  expect(tap.repeats("b", "part", 400)).toBe(false);
  expect(tap.repeats("b", "part", 5000)).toBe(false);
});
