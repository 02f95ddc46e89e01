import { expect, test } from "vitest";
import type { Schemas } from "../contract/client";
import {
  above,
  columns,
  daysBetween,
  hearings,
  picture,
  scale,
  secureGroups,
  spread,
  titleLines,
} from "./picture";

test("time climbs: the last day is at the top, and days outside the span stop at its ends", () => {
  const p = picture("2026-02-03", "2026-05-04");
  expect(p.y("2026-05-04")).toBe(above);
  expect(p.y("2026-06-01")).toBe(above);
  expect(p.y("2026-04-27")).toBeCloseTo(above + 7 * scale(91));
  expect(p.y("2026-02-03")).toBe(p.y("2025-01-01"));
  expect(p.height).toBe(p.y("2026-02-03") + 20);
  expect(p.months.map((m) => m.name)).toEqual(["Mar", "Apr", "May"]);
});

test("January names its year, and a span within a month has no names", () => {
  expect(picture("2025-12-05", "2026-02-02").months.map((m) => [m.name, m.year])).toEqual([
    ["Jan 2026", true],
    ["Feb", false],
  ]);
  expect(picture("2026-05-02", "2026-05-04").months).toEqual([]);
});

test("a month is loose, years stay readable", () => {
  expect(scale(28)).toBe(12);
  expect(scale(91)).toBeCloseTo(6.81, 2);
  expect(scale(1100)).toBe(2.3);
  expect(scale(0)).toBe(12);
});

test("days between two dates do not mind the change of clocks", () => {
  expect(daysBetween("2026-03-28", "2026-03-30")).toBe(2);
  expect(daysBetween("2026-05-04", "2026-05-03")).toBe(-1);
});

test("a title has as many lines as there is room before the piece below", () => {
  expect([5, 11, 24, 25, 39, 400].map(titleLines)).toEqual([0, 1, 1, 2, 3, 3]);
});

test("rails stand apart by the effort, up to five", () => {
  expect([0, 1, 5, 9].map(spread)).toEqual([6, 11, 31, 31]);
});

test("strands share the width by their lanes", () => {
  const c = columns([
    { strand: "method", lanes: 1 },
    { strand: "technique", lanes: 3 },
  ]);
  expect(c.map((x) => [x.left, x.width])).toEqual([
    [0, 0.25],
    [0.25, 0.75],
  ]);
});

test("hearings are gathered by their day", () => {
  const heard: Schemas["HeardPiece"][] = [
    { day: "2026-04-13", title: "Fog", solid: true },
    { day: "2026-04-13", title: "Tide", solid: false },
    { day: "2026-04-20", title: "Fog", solid: true },
  ];
  expect(hearings(heard).map((h) => [h.date, h.list.length])).toEqual([
    ["2026-04-13", 2],
    ["2026-04-20", 1],
  ]);
});

test("skills whose lines would overlap share one", () => {
  const y = (date: string) => 100 - Number(date.slice(-2)) * 3;
  const skill = (name: string, day: string) => ({ name, day });
  const skills = [skill("ties", "2026-05-02"), skill("thumb", "2026-05-20"), skill("pulse", "2026-05-18")];
  expect(secureGroups(skills, y, 20).map((g) => g.names)).toEqual([["thumb", "pulse"], ["ties"]]);
});
