import { describe, expect, it } from "vitest";
import { dayToOpen, doneOn, firstOn, type Item, inOrder, type Tick, ticked } from "./ticks";

const tick = (id: string, more: Partial<Tick> = {}): Tick => ({
  id,
  at: "2026-05-05T16:00:00Z",
  kind: "done",
  day: "2026-05-05",
  item: "chunk m 1-2",
  ...more,
});
const item = (key: string, material: string) => ({ key, material }) as Item;

describe("ticks from home", () => {
  it("count once, whether the server has them or they still wait", () => {
    const all = ticked([tick("a")], [tick("a"), tick("b", { item: "review n" })]);
    expect(all.map((t) => t.id)).toEqual(["a", "b"]);
    expect(doneOn(all, "2026-05-05", "review n")?.id).toBe("b");
    expect(doneOn(all, "2026-05-06", "review n")).toBeUndefined();
  });

  it("are gone when they were taken back, before or after they arrived", () => {
    const undo = tick("u", { kind: "undo", undoes: "a", item: undefined, day: undefined });
    expect(ticked([tick("a")], [undo])).toEqual([]);
    expect(ticked([], [tick("a"), undo])).toEqual([]);
  });

  it("put what was chosen in front, the last choice holding", () => {
    const items = [item("chunk m 1-2", "m"), item("review n", "n")];
    // The server knows the piece, the device the thing of the week.
    const all = [tick("x", { kind: "first", item: "chunk m 1-2" }), tick("y", { kind: "first", item: "n" })];
    expect(firstOn(all, "2026-05-05", items)).toBe("review n");
    expect(inOrder(items, "review n").map((i) => i.key)).toEqual(["review n", "chunk m 1-2"]);
    expect(inOrder(items, undefined)).toBe(items);
    expect(firstOn(all, "2026-05-06", items)).toBeUndefined();
  });

  it("open on today, or on the nearest day of the week", () => {
    const days = [{ date: "2026-05-05" }, { date: "2026-05-06" }];
    expect(dayToOpen(days, "2026-05-06")).toBe("2026-05-06");
    expect(dayToOpen(days, "2026-05-01")).toBe("2026-05-05");
    expect(dayToOpen(days, "2026-05-20")).toBe("2026-05-06");
    expect(dayToOpen([], "2026-05-20")).toBeUndefined();
  });
});
