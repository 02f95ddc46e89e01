import { expect, it } from "vitest";
import { fits } from "./Palette";

it("finds by all words, whatever their case and marks", () => {
  expect(fits("Zoë Ny cello", "zoe")).toBe(1);
  expect(fits("Lesson Zoë Ny", "zoe less")).toBe(0.5);
  expect(fits("Zoë Ny", "zoe cello")).toBe(0);
  expect(fits("Zoë Ny", "")).toBe(0.5);
});
