import { describe, expect, it } from "vitest";
import { checked } from "./files";

describe("a file before it is sent", () => {
  it("must be there", () => {
    expect(() => checked(null)).toThrow("Choose a file first.");
    expect(() => checked(new File([], ""))).toThrow("Choose a file first.");
    expect(() => checked(new File([], "empty.mid"))).toThrow("“empty.mid” is empty. Nothing was changed.");
  });
  it("must not be larger than the server takes", () => {
    const big = new File([new Uint8Array(13 * 1024 * 1024)], "symphony.xml");
    expect(() => checked(big)).toThrow("“symphony.xml” has 13 MB; a score may have 12 MB at most.");
    const small = new File(["X:1"], "tune.abc");
    expect(checked(small)).toBe(small);
  });
});
