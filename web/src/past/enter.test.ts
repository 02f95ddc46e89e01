import { expect, test } from "vitest";
import { clear, entries, hear, mark, nothing } from "./enter";

const at = "2026-11-17T15:00:00.000Z";
const said = (d: Parameters<typeof entries>[0]) =>
  entries(d, at).map(({ id: _, at: when, ...rest }) => ({ ...rest, at: when.slice(11, 19) }));

test("an untouched form enters nothing", () => {
  expect(entries(nothing, at)).toEqual([]);
  expect(entries({ ...nothing, note: "  " }, at)).toEqual([]);
});

test("what was begun comes first, a second apart, and the same touch again takes a thing away", () => {
  let d = mark(nothing, "fog", "pulse", "part");
  d = mark(d, "fog", "pulse", "full");
  d = mark(d, "fog", "tone", "none");
  d = mark(mark(d, "fog", "flow", "part"), "fog", "flow", "part");
  d = hear(hear(hear(d, "tide", 3), "gulls", 2), "gulls", 2);
  d = clear(clear(clear(d, "rope"), "fog"), "fog");
  d = { ...d, begun: "boat", note: " Heavy elbows ", bring: "the blue book" };
  expect(said(d)).toEqual([
    { kind: "assigned", material: "boat", at: "15:00:00" },
    { kind: "mark", material: "fog", focus: "pulse", mark: "full", at: "15:00:01" },
    { kind: "mark", material: "fog", focus: "tone", mark: "none", at: "15:00:02" },
    { kind: "hearing", material: "tide", rating: 3, at: "15:00:03" },
    { kind: "cleared", material: "rope", at: "15:00:04" },
    { kind: "note", text: "Heavy elbows", at: "15:00:05" },
    { kind: "bring", text: "the blue book", at: "15:00:06" },
  ]);
});
