import { describe, expect, it } from "vitest";
import { gateNames, kindNames, layerOf } from "./kinds";

describe("the things of a week", () => {
  it("each have a name that a family understands and a layer that is drawn", () => {
    for (const [kind, name] of Object.entries(kindNames)) {
      expect(name).toMatch(/^[A-Z]/);
      expect(["working", "preview", "review"]).toContain(layerOf(kind as keyof typeof kindNames));
    }
    expect(layerOf("review")).toBe("review");
    expect(layerOf("listen")).toBe("preview");
    expect(layerOf("spot")).toBe("working");
  });

  it("say of every gate which hand plays", () => {
    expect(gateNames.right).toContain("right hand only");
    expect(gateNames.left).toContain("left hand only");
    expect(new Set(Object.values(gateNames)).size).toBe(5);
  });
});
