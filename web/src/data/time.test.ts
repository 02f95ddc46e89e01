import { expect, it } from "vitest";
import { addDays, clockOf, daysBetween, minutesOf, monthOf, weekdaysFrom, weekStart } from "./time";

it("counts minutes and days", () => {
  expect(minutesOf("15:30")).toBe(930);
  expect(clockOf(545)).toBe("09:05");
  expect(addDays("2026-02-28", 1)).toBe("2026-03-01");
  expect(addDays("2026-03-29", 7)).toBe("2026-04-05"); // over a change of clocks
  expect(daysBetween("2026-03-28", "2026-04-04")).toBe(7);
});

it("finds weeks and months", () => {
  const dates = ["2026-05-02", "2026-05-03", "2026-05-04", "2026-05-10"];
  expect(dates.map((d) => weekStart(d, 1))).toEqual(["2026-04-27", "2026-04-27", "2026-05-04", "2026-05-04"]);
  expect(dates.map((d) => weekStart(d, 0))).toEqual(["2026-04-26", "2026-05-03", "2026-05-03", "2026-05-10"]);
  expect(dates.map((d) => weekStart(d, 6))).toEqual(["2026-05-02", "2026-05-02", "2026-05-02", "2026-05-09"]);
  expect(weekdaysFrom(1)).toEqual([1, 2, 3, 4, 5, 6, 0]);
  expect(weekdaysFrom(6)).toEqual([6, 0, 1, 2, 3, 4, 5]);
  expect(monthOf("2026-12-31", 1)).toBe("2027-01-01");
  expect(monthOf("2026-01-15", -1)).toBe("2025-12-01");
});
