import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { within } from "./zoom";

const rung = (material: string, layer: Schemas["Rung"]["layer"], when: string): Schemas["Rung"] => ({
  material,
  exercise: "",
  title: material,
  from: "",
  layer,
  leap: { unknown: false, words: "", size: 1, ready: 1, parts: [] },
  cliff: false,
  plateau: false,
  weeks: 0,
  spots: 0,
  why: "",
  cleared: layer === "review" ? `${when}T00:00:00Z` : undefined,
  begins: layer === "ahead" ? { low: when, median: when, high: when, words: "" } : undefined,
});

const view = (rungs: Schemas["Rung"][]) =>
  ({ day: "2026-11-24", rails: [{ strand: "method", rungs }] }) as Schemas["LadderView"];

const rungs = [
  rung("old", "review", "2025-01-10"),
  rung("autumn", "review", "2026-10-01"),
  rung("now", "working", ""),
  rung("next", "ahead", "2027-03-01"),
  rung("later", "ahead", "2027-04-01"),
  rung("far", "ahead", "2028-04-01"),
];
const shown = (zoom: "month" | "term" | "year" | "whole", asked?: string) => {
  const [p] = within(view(rungs), zoom, asked);
  return [p?.below, p?.rail.rungs.map((r) => r.material).join(" "), p?.above];
};

describe("within", () => {
  it("shows what lies in the stretch of time, and always what is next", () => {
    expect(shown("month")).toEqual([2, "now next", 2]);
    expect(shown("term")).toEqual([1, "autumn now next", 2]);
    expect(shown("year")).toEqual([1, "autumn now next later", 1]);
    expect(shown("whole")).toEqual([0, "old autumn now next later far", 0]);
  });

  it("draws every rung ahead where nobody knows when it begins", () => {
    const undated = ["a", "b", "c"].map((m) => ({ ...rung(m, "ahead", ""), begins: undefined }));
    const [p] = within(view([rung("now", "working", ""), ...undated]), "month");
    expect([p?.rail.rungs.map((r) => r.material).join(" "), p?.above]).toEqual(["now a b c", 0]);
  });

  it("shows what was asked for, and what stands between", () => {
    expect(shown("month", "far")).toEqual([2, "now next later far", 0]);
    expect(shown("month", "later")).toEqual([2, "now next later", 1]);
    expect(shown("month", "old")).toEqual([0, "old autumn now next", 2]);
    expect(shown("month", "nowhere")).toEqual(shown("month"));
  });

  it("keeps one learned rung where there is nothing else", () => {
    expect(within(view(rungs.slice(0, 1)), "month")[0]?.rail.rungs).toHaveLength(1);
  });
});
