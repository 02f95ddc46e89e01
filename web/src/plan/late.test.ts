import { describe, expect, it } from "vitest";
import { lateness, segmentAt } from "./late";

const s = (
  id: string,
  minutes: number,
  least: number,
  kind: "working" | "closing" | "opening" = "working",
) => ({
  id,
  title: id,
  minutes,
  least,
  kind,
});
const plan = [
  s("hello", 2, 1, "opening"),
  s("fog", 10, 4),
  s("gulls", 8, 3),
  s("tide", 5, 5),
  s("bye", 2, 1, "closing"),
];

describe("lateness", () => {
  it("is nothing while the clock is with the plan", () => {
    expect(lateness(plan, 1, 5, 27)).toEqual({ by: 0, shorten: [], leaveOut: [] });
  });

  it("shortens what can give most", () => {
    // At minute 15 still in the second segment, which was to end at 12: three minutes late, one of them to come.
    expect(lateness(plan, 1, 15, 27)).toEqual({ by: 4, shorten: [{ title: "gulls", to: 4 }], leaveOut: [] });
  });

  it("leaves whole ones out when that is not enough, never the closing", () => {
    const late = lateness(plan, 1, 22, 27);
    expect(late.by).toBe(11);
    expect(late.leaveOut).toEqual(["tide", "gulls"]);
    expect(late.shorten).toEqual([]);
  });
});

it("finds the segment of the moment", () => {
  expect([0, 1.9, 2, 11, 12, 26, 99].map((m) => segmentAt(plan, m))).toEqual([0, 0, 1, 1, 2, 4, 4]);
});
