// @vitest-environment happy-dom
import { beforeEach, expect, test } from "vitest";
import { tap, tapped } from "./boxes";

const boxes = { token: "t", day: "2026-05-04", item: "fog:chunk:1" };

beforeEach(() => localStorage.clear());

test("tapped boxes stay until the thing is done", () => {
  expect(tapped(boxes)).toBe(0);
  tap(boxes, 2);
  expect(tapped(boxes)).toBe(2);
  expect(tapped({ ...boxes, item: "fog:chunk:2" })).toBe(0);
  expect(tapped({ ...boxes, day: "2026-05-05" })).toBe(0);
  tap(boxes, 0);
  expect(Object.keys(localStorage)).toEqual([]);
});

test("what is older than two weeks goes, and nothing else", () => {
  localStorage.setItem("kept x", "1");
  tap({ ...boxes, day: "2026-04-19" }, 1);
  tap({ ...boxes, day: "2026-04-20" }, 3);
  tap(boxes, 1);
  expect(tapped({ ...boxes, day: "2026-04-19" })).toBe(0);
  expect(tapped({ ...boxes, day: "2026-04-20" })).toBe(3);
  expect(localStorage.getItem("kept x")).toBe("1");
});
