import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import {
  extent,
  freshness,
  gap,
  inSight,
  lay,
  placeAt,
  proposedY,
  shortExercises,
  shortNames,
} from "./layout";

const rung = (material: string, layer: Schemas["Rung"]["layer"], size: number): Schemas["Rung"] => ({
  material,
  exercise: "",
  title: material,
  from: "",
  layer,
  leap: { unknown: false, words: "", size, ready: 1, parts: [] },
  cliff: false,
  plateau: false,
  weeks: 0,
  spots: 0,
  why: "",
});

const scale = { perLeap: 36, least: 36 };

describe("lay", () => {
  it("leaves room over the technique for what the staircases propose", () => {
    const [rail] = lay(
      [
        {
          strand: "technique",
          reach: 1.5,
          reachWhy: "",
          rungs: [rung("a", "working", 1), rung("b", "ahead", 1)],
        },
      ],
      scale,
    );
    if (!rail) throw new Error("no rail");
    expect(proposedY(rail, 0)).toBeGreaterThan(rail.rungs.at(-1)?.y ?? 0);
    expect(extent([rail], 3).above - extent([rail]).above).toBeGreaterThanOrEqual(44);
    expect(extent([rail], 3).above).toBeGreaterThan(proposedY(rail, 2));
  });

  it("puts the working rung on the line and keeps each gap to its own leap", () => {
    const [rail] = lay(
      [
        {
          strand: "method",
          reach: 1.5,
          reachWhy: "",
          rungs: [rung("a", "review", 3), rung("b", "working", 1), rung("c", "ahead", 2.5)],
        },
      ],
      scale,
    );
    expect(rail?.rungs.map((r) => r.y)).toEqual([-gap(1, scale), 0, gap(2.5, scale)]);
    expect(rail?.foot).toBe(0);
  });

  it("has the line between learned and next when nothing is in work", () => {
    const [rail] = lay(
      [
        {
          strand: "reading",
          reach: 1.5,
          reachWhy: "",
          rungs: [rung("a", "review", 1), rung("b", "ahead", 2)],
        },
      ],
      scale,
    );
    expect(rail?.rungs.map((r) => Math.sign(r.y))).toEqual([-1, 1]);
  });

  it("reaches over everything that is drawn", () => {
    const rails = lay(
      [
        {
          strand: "method",
          reach: 1.5,
          reachWhy: "",
          rungs: [rung("a", "review", 9), rung("b", "ahead", 9)],
        },
      ],
      scale,
    );
    const { above, under } = extent(rails);
    for (const r of rails[0]?.rungs ?? []) {
      expect(r.y).toBeLessThan(above);
      expect(-r.y).toBeLessThan(under);
    }
  });
});

describe("a long rail", () => {
  const rails = lay(
    [
      {
        strand: "method",
        reach: 1.5,
        reachWhy: "",
        rungs: Array.from({ length: 1000 }, (_, i) => rung(`m${i}`, i === 0 ? "working" : "ahead", 1)),
      },
    ],
    scale,
  );
  const rail = rails[0] ?? { strand: "method" as const, rungs: [], foot: 0 };

  it("draws only what is in sight", () => {
    const { above } = extent(rails);
    const seen = inSight(rail, above, 1000, 1720);
    expect(seen.length).toBeGreaterThan(5);
    expect(seen.length).toBeLessThan(15);
  });

  it("tells the place that a rung is dragged to", () => {
    expect(placeAt(rail, "m3", gap(1, scale) / 2)).toBe(0);
    expect(placeAt(rail, "m3", 3.5 * gap(1, scale))).toBe(2);
    expect(placeAt(rail, "m3", 1e9)).toBe(998);
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

describe("shortNames", () => {
  it("keeps of long titles that begin alike what tells them apart", () => {
    expect(
      shortNames(["Five Fingers, C major", "Five Fingers, G major", "Fog", "Storm, Part One of Two"]),
    ).toEqual(["… C major", "… G major", "Fog", "Storm, Part One of Two"]);
    expect(shortNames(["Card: A", "Card: B"])).toEqual(["Card: A", "Card: B"]);
  });
});

describe("shortExercises", () => {
  it("tells exercises in one key apart by what differs", () => {
    expect(
      shortExercises([
        "C major, five fingers: hands apart",
        "C major, five fingers: hands together",
        "C major scale: one octave",
        "G major scale: one octave",
        "D minor scale: one octave",
        "D minor scale: two octaves",
        "",
      ]),
    ).toEqual([
      "C: apart",
      "C: together",
      "C: scale: one octave",
      "G major scale: one octave",
      "D minor: one octave",
      "D minor: two octaves",
      "",
    ]);
  });
});
