import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { paperSize } from "./paperSize";

function week(items: number, words = "Name the first note, then play it slowly."): Schemas["Week"] {
  const item: Schemas["WeekItem"] = {
    kind: "chunk",
    material: "m",
    title: "Slow Ferry",
    where: "bars 1–2",
    hand: "right hand",
    times: 7,
    inRow: false,
    minutes: 2,
    words,
  };
  const day = {
    date: "2026-05-04",
    rest: false,
    minutes: 10,
    focus: "steady pulse",
    items: Array(items).fill(item),
  };
  return { days: [day], notYet: [], leftOut: [] } as unknown as Schemas["Week"];
}

describe("paperSize", () => {
  it("leaves a light week at full size and never grows", () => {
    expect(paperSize(week(2))).toBe(1);
  });

  it("shrinks with every item, but stays readable", () => {
    const sizes = [3, 5, 7, 9, 30].map((n) => paperSize(week(n)));
    expect([...sizes].sort((a, b) => b - a)).toEqual(sizes);
    expect(sizes.at(-1)).toBeGreaterThanOrEqual(0.45);
  });

  it("makes room for long words", () => {
    expect(paperSize(week(5, "word ".repeat(60)))).toBeLessThan(paperSize(week(5)));
  });
});
