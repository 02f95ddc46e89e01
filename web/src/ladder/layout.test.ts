import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { extent, freshness, gap, lay } from "./layout";

const rung = (material: string, layer: Schemas["Rung"]["layer"], size: number): Schemas["Rung"] => ({
  material,
  title: material,
  from: "",
  layer,
  leap: { size, ready: 1, parts: [] },
  cliff: false,
  plateau: false,
  weeks: 0,
  spots: 0,
  why: "",
});

describe("lay", () => {
  it("puts the working rung on the line and keeps each gap to its own leap", () => {
    const [rail] = lay([
      { strand: "method", rungs: [rung("a", "review", 3), rung("b", "working", 1), rung("c", "ahead", 2.5)] },
    ]);
    expect(rail?.rungs.map((r) => r.y)).toEqual([-gap(1), 0, gap(2.5)]);
    expect(rail?.foot).toBe(0);
  });

  it("has the line between learned and next when nothing is in work", () => {
    const [rail] = lay([{ strand: "reading", rungs: [rung("a", "review", 1), rung("b", "ahead", 2)] }]);
    expect(rail?.rungs.map((r) => Math.sign(r.y))).toEqual([-1, 1]);
  });

  it("reaches over everything that is drawn", () => {
    const rails = lay([{ strand: "method", rungs: [rung("a", "review", 9), rung("b", "ahead", 9)] }]);
    const { above, under } = extent(rails);
    for (const r of rails[0]?.rungs ?? []) {
      expect(r.y).toBeLessThan(above);
      expect(-r.y).toBeLessThan(under);
    }
  });
});

describe("freshness", () => {
  it("fades as a piece is forgotten, and stays readable", () => {
    expect(freshness(1)).toBe(1);
    expect(freshness(0.7)).toBeLessThan(freshness(0.9));
    expect(freshness(0.3)).toBeCloseTo(0.62);
    expect(freshness(undefined)).toBeCloseTo(0.62);
  });
});
