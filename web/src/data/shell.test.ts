import { expect, test } from "vitest";
import { ours } from "./shell";

test("the files of the page are kept, each once, and nothing else", () => {
  const at = "https://ladder.example";
  expect(
    ours(
      [
        `${at}/assets/app-1.js`,
        `${at}/assets/font-2.woff2`,
        `${at}/sw.js`,
        `${at}/api/today`,
        `${at}/assets/app-1.js`,
        "https://elsewhere.example/assets/x.js",
      ].map((name) => ({ name })),
      at,
    ),
  ).toEqual(["/assets/app-1.js", "/assets/font-2.woff2", "/sw.js"]);
});
