import { describe, expect, it } from "vitest";
import { decodeScore } from "./library";
import { firstName, leapSize, longDay, minutes, weekdayOf, weeks } from "./words";

describe("words", () => {
  it("names days by the calendar, whatever the time zone", () => {
    expect(longDay("2026-11-23")).toBe("Monday 23 November");
    expect(weekdayOf("2026-02-28")).toBe("Saturday");
  });

  it("writes half minutes as a musician would", () => {
    expect([0, 0.5, 1, 2.5, 12].map(minutes)).toEqual(["0", "½", "1", "2½", "12"]);
  });

  it("counts weeks and leaps", () => {
    expect([weeks(1), weeks(3)]).toEqual(["one week", "3 weeks"]);
    expect(leapSize(0.449)).toBe("0.4");
    expect(firstName("Odile Marchetti-Brandt van der Hoeven")).toBe("Odile");
  });
});

describe("decodeScore", () => {
  const bytes = (...b: number[]) => new Uint8Array(b).buffer;
  it("reads UTF-8 and both orders of UTF-16", () => {
    expect(decodeScore(new TextEncoder().encode("<ü/>").buffer as ArrayBuffer)).toBe("<ü/>");
    expect(decodeScore(bytes(0xff, 0xfe, 0x3c, 0x00, 0xfc, 0x00))).toBe("<ü");
    expect(decodeScore(bytes(0xfe, 0xff, 0x00, 0x3c, 0x00, 0xfc))).toBe("<ü");
    expect(decodeScore(bytes())).toBe("");
  });
});
