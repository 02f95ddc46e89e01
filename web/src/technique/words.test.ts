import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { afterTap, cellWords, faultWords, nextPass } from "./words";

describe("a usual fault", () => {
  it("is seen, less, gone, and seen again, tap by tap", () => {
    const seen = [afterTap(undefined)];
    for (let i = 0; i < 3; i++) seen.push(afterTap(seen.at(-1)));
    expect(seen.map(faultWords)).toEqual(["seen", "less", "gone", "seen"]);
    expect(faultWords(undefined)).toBe("tap");
  });
});

describe("a key of the atlas", () => {
  const passes = ["hands apart", "from memory", "hands together"];
  const cell = (through: number, working: number): Schemas["AtlasCell"] => ({
    key: "C",
    through,
    working,
    exercise: "",
  });

  it("says which pass waits next", () => {
    expect(cellWords(cell(0, 0), passes)).toBe("not begun");
    expect(cellWords(cell(1, 0), passes)).toBe("1 through; the next waits: from memory");
    expect(cellWords(cell(3, 0), passes)).toBe("through every pass");
  });

  it("says what is being worked at before anything else", () => {
    expect(cellWords(cell(1, 2), passes)).toBe("working at pass 2, from memory");
  });
});

describe("the pass of a new cycle", () => {
  const cycleTypes = [
    {
      id: "scale",
      name: "Scales",
      kinds: [],
      steps: ["apart", "memory", "together"].map((id) => ({ id, name: id })),
    },
  ];
  const stairs = (at: number) => [{ type: "scale", name: "Scales", at, waits: "", steps: [] }];
  const kept = (pass: number) => ({ pass }) as Schemas["Cycle"];

  it("is the one after that which is kept, and the last stays", () => {
    expect(nextPass({ cycleTypes, stairs: stairs(0), cycle: kept(0) })).toBe("memory");
    expect(nextPass({ cycleTypes, stairs: stairs(0), cycle: kept(2) })).toBe("together");
  });

  it("is where the student stands when none is kept", () => {
    expect(nextPass({ cycleTypes, stairs: stairs(1) })).toBe("memory");
    expect(nextPass({ cycleTypes, stairs: stairs(3) }), "all climbed").toBe("together");
    expect(nextPass({ cycleTypes, stairs: [] })).toBe("apart");
  });
});
