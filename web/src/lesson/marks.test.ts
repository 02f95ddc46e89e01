import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { marked, nextPoint } from "./marks";

const point = (id: string, more: Partial<Schemas["FocusPoint"]> = {}): Schemas["FocusPoint"] => ({
  id,
  text: id,
  own: false,
  history: [],
  ...more,
});
const piece = { material: "fog" } as Schemas["LessonPiece"];

describe("marks in a lesson", () => {
  it("go from point to point, also where all had marks in lessons before", () => {
    let points = ["a", "b", "c"].map((id) => point(id, { mark: "part", history: ["part"] }));
    let at = 0;
    const seen: string[] = [];
    for (const key of ["full", "part", "none"] as const) {
      const p = points[at];
      if (!p) throw new Error("no point");
      seen.push(`${p.id} ${key}`);
      expect(marked(piece, p, key)).toMatchObject([
        { kind: "mark", material: "fog", focus: p.id, mark: key },
      ]);
      points = points.map((x) => (x.id === p.id ? { ...x, mark: key, marked: `E${x.id}` } : x));
      at = nextPoint(points, at);
    }
    expect(seen).toEqual(["a full", "b part", "c none"]);
    expect(at).toBe(2);
  });

  it("begin again with the first that has none, and stay where all have one", () => {
    const points = [point("a"), point("b", { marked: "E1" }), point("c")];
    expect(nextPoint(points, 2)).toBe(0);
    expect(nextPoint(points, 0)).toBe(2);
    expect(nextPoint([point("a", { marked: "E1" })], 0)).toBe(0);
    expect(nextPoint([], 0)).toBe(0);
  });

  it("replace the one that the point got in this lesson", () => {
    expect(marked(piece, point("a", { mark: "part", marked: "E1" }), "full")).toMatchObject([
      { kind: "correction", corrects: "E1" },
      { kind: "mark", focus: "a", mark: "full" },
    ]);
  });
});
