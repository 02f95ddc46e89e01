import { describe, expect, it } from "vitest";
import { drop, free, type Hand, move, pin, starts } from "./hand";

const none: Hand = { version: 3 };
const segments = (["opening", "working", "review", "closing"] as const).map((kind) => ({ id: kind, kind }));

describe("a plan by hand", () => {
  it("pins, drops and frees a segment, one of them at a time", () => {
    const pinned = pin(pin(none, "a", 4), "a", 5);
    expect(pinned.pins).toEqual([{ segment: "a", minutes: 5 }]);
    const dropped = drop(pinned, "a");
    expect(dropped.pins).toEqual([]);
    expect(dropped.drops).toEqual(["a"]);
    expect(pin(dropped, "a", 0).drops).toEqual([]);
    expect(free(dropped, "a").drops).toEqual([]);
    expect(dropped.version).toBe(3);
  });

  it("moves between the opening and the closing", () => {
    expect(move(none, segments, "review", -1).order).toEqual(["review", "working"]);
    expect(move(none, segments, "review", 1)).toBe(none);
    expect(move(none, segments, "opening", 1)).toBe(none);
  });

  it("says when each segment begins", () => {
    expect(starts([{ minutes: 2 }, { minutes: 8 }, { minutes: 1 }])).toEqual([0, 2, 10]);
  });
});
