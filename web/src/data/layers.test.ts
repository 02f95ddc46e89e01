import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";

const root = join(__dirname, "..");

const files = readdirSync(root, { recursive: true, encoding: "utf8" })
  .filter((f) => /\.tsx?$/.test(f) && !f.includes(".test.") && !f.startsWith("contract/"))
  .map((f) => ({ name: f, text: readFileSync(join(root, f), "utf8") }));

/** The files that import a value, not only a type, of a name. */
const importing = (name: RegExp, from: RegExp) =>
  files
    .filter(({ text }) =>
      [...text.matchAll(/^import (type )?([^;]*?) from "([^"]+)";/gms)].some(
        ([, type, names, path]) => !type && name.test(names ?? "") && from.test(path ?? ""),
      ),
    )
    .map((f) => f.name)
    .sort();

describe("the page", () => {
  it("speaks with the server in data alone", () => {
    expect(importing(/\bclient\b/, /contract\/client$/).filter((f) => !f.startsWith("data/"))).toEqual([]);
  });
  it("asks in data and on screens; the parts draw", () => {
    expect(
      importing(/./, /^@tanstack\/react-query$/).filter(
        (f) => !f.startsWith("data/") && !f.startsWith("screens/"),
      ),
    ).toEqual(["family.tsx", "main.tsx"]);
  });
  it("sends in data alone", () => {
    expect(
      importing(/\buse(Mutation|QueryClient)\b/, /react-query$/).filter((f) => !f.startsWith("data/")),
    ).toEqual([]);
  });
});
