import { expect, test } from "vitest";
import { StudioClock } from "./clock";

const at = (text: string) => Date.parse(text);

test("a device that is a day off lives in the studio's day", () => {
  let device = at("2026-05-04T23:58:00Z");
  const c = new StudioClock(() => device);
  expect(c.today("UTC")).toBe("2026-05-04");
  c.heard("2026-05-05T23:58:00Z");
  expect(c.today("UTC")).toBe("2026-05-05");
  device += 3 * 60_000; // midnight passes
  expect(c.today("UTC")).toBe("2026-05-06");
});

test("the day is that of the studio's zone, over a change of clocks too", () => {
  const c = new StudioClock(() => at("2026-10-25T00:30:00Z"));
  expect(c.today("Europe/Lisbon")).toBe("2026-10-25");
  expect(c.today("Pacific/Auckland")).toBe("2026-10-25");
  expect(c.today("America/St_Johns")).toBe("2026-10-24");
  expect(c.today("Nowhere/Land")).toMatch(/^2026-10-2[45]$/);
});

test("the way of an answer is no error, and time never goes back", () => {
  const c = new StudioClock(() => at("2026-05-04T10:00:00Z"));
  c.heard("2026-05-04T09:59:57Z");
  expect(c.now()).toBe(at("2026-05-04T10:00:00Z"));
  c.heard("2026-05-04T09:00:00Z");
  expect(c.now()).toBe(at("2026-05-04T10:00:00Z"));
  c.heard("nonsense");
  c.heard(null);
  expect(c.now()).toBe(at("2026-05-04T10:00:00Z"));
});

test("no two entries share a moment", () => {
  const c = new StudioClock(() => at("2026-05-04T10:00:00Z"));
  expect([c.moment(), c.moment()]).toEqual(["2026-05-04T10:00:00.000Z", "2026-05-04T10:00:00.001Z"]);
});

test("what was heard is kept for a page that opens without a connection", () => {
  const kept = new Map<string, string>();
  const store = {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => void kept.set(k, v),
  };
  const device = () => at("2026-05-04T10:00:00Z");
  new StudioClock(device, store).heard("2026-05-05T10:00:00Z");
  expect(new StudioClock(device, store).today("UTC")).toBe("2026-05-05");
});
