import { describe, expect, it } from "vitest";
import { add, drop, free, type Hand, often, pin, practise, putBack, touched } from "./hand";

const none: Hand = { version: 4 };

describe("a week by hand", () => {
  it("pins an item to one day, and brings it back when it was out", () => {
    const out = drop(none, "chunk a 1-2");
    const there = pin(pin(out, "chunk a 1-2", "2026-05-05"), "chunk a 1-2", "2026-05-07");
    expect(there.pins).toEqual([{ item: "chunk a 1-2", day: "2026-05-07" }]);
    expect(there.drops).toEqual([]);
    expect(there.version).toBe(4);
  });

  it("takes an item out with all that was set for it, and puts it back", () => {
    const set = often(pin(none, "a", "2026-05-05"), "a", 2);
    const out = drop(set, "a");
    expect(out).toMatchObject({ drops: ["a"], pins: [], times: [] });
    expect(putBack(out, "a").drops).toEqual([]);
    expect(free(set, "a")).toMatchObject({ pins: [], times: [] });
  });

  it("gives and takes days and learned pieces, each once", () => {
    const away = practise(practise(none, "2026-05-05", true), "2026-05-05", false);
    expect(away.days).toEqual([{ day: "2026-05-05", practice: false }]);
    expect(add(add(add(none, "m", true), "m", true), "n", true).adds).toEqual(["m", "n"]);
    expect(add(add(none, "m", true), "m", false).adds).toEqual([]);
  });

  it("knows whether anything was set", () => {
    expect(touched(none)).toBe(false);
    expect(touched({ version: 1, drops: [], words: "", minutes: 0 })).toBe(false);
    expect(touched(often(none, "a", 3))).toBe(true);
    expect(touched({ version: 1, words: "Sing." })).toBe(true);
  });
});
