import { describe, expect, it } from "vitest";
import { insert, move, type Order, orderOf, placeOf, setAside, swap, takeOff } from "./order";

const order: Order = [
  { material: "a", strand: "method" },
  { material: "x", strand: "reading" },
  { material: "b", strand: "method" },
  { material: "c", strand: "method" },
];
const method = (o: Order) => o.filter((r) => r.strand === "method").map((r) => r.material);

describe("order", () => {
  it("moves a rung on its own strand and stops at the ends", () => {
    expect(method(move(order, "c", -2))).toEqual(["c", "a", "b"]);
    expect(method(move(order, "c", -9))).toEqual(["c", "a", "b"]);
    expect(method(move(order, "a", 1))).toEqual(["b", "a", "c"]);
    expect(move(order, "c", 1)).toBe(order);
    expect(move(order, "nowhere", 1)).toBe(order);
    expect(move(move(order, "b", -1), "b", 1).filter((r) => r.strand === "reading")).toHaveLength(1);
  });

  it("inserts next, sets aside, takes off, and knows the place", () => {
    expect(method(insert(order, "n", "method"))).toEqual(["n", "a", "b", "c"]);
    expect(method(insert(order, "c", "method"))).toEqual(["c", "a", "b"]);
    expect(setAside(order, "b", "skipped")[2]?.aside).toBe("skipped");
    expect(takeOff(order, "x")).toHaveLength(3);
    expect(placeOf(order, "b")).toEqual({ at: 1, of: 3 });
  });

  it("is read from what was not begun", () => {
    const rung = (material: string, layer: "review" | "ahead" | "preview") => ({
      material,
      title: material,
      from: "",
      exercise: "",
      layer,
      leap: { unknown: false, words: "", size: 1, ready: 1, parts: [] },
      cliff: false,
      plateau: false,
      weeks: 0,
      spots: 0,
      why: "",
    });
    const rails = [
      {
        strand: "method" as const,
        reach: 1.5,
        reachWhy: "",
        rungs: [rung("a", "review"), rung("b", "preview"), rung("c", "ahead")],
      },
    ];
    expect(method(orderOf({ rails }))).toEqual(["b", "c"]);
  });

  it("lets two rungs change places, or one from outside take a place", () => {
    expect(method(swap(order, "a", "c"))).toEqual(["c", "b", "a"]);
    expect(method(swap(order, "b", "new"))).toEqual(["a", "new", "c"]);
    expect(swap(order, "gone", "a")).toBe(order);
  });
});
