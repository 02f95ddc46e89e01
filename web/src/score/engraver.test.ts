import { describe, expect, it } from "vitest";
import { declared } from "./engraver";

describe("a score that is engraved", () => {
  it("has a declaration, which some programs leave out", () => {
    expect(declared("<score-partwise/>")).toBe('<?xml version="1.0" encoding="UTF-8"?>\n<score-partwise/>');
    expect(declared(' \n<?xml version="1.0"?><a/>')).toBe('<?xml version="1.0"?><a/>');
  });
});
