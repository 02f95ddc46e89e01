import { expect, test } from "vitest";
import { keep, say } from "./edits";

const written = {
  purpose: "family" as const,
  length: "short" as const,
  tone: "warm" as const,
  from: "2026-02-03",
  to: "2026-05-04",
  own: "",
  version: 1,
  edits: [{ part: "next", text: "Then the Gull.", was: "Next: Gull." }],
};
const sentence = {
  part: "cleared",
  text: "One piece.",
  drafted: "One piece.",
  entries: [],
  edited: false,
  newer: false,
};

test("a changed sentence remembers what was drafted then", () => {
  expect(say(written, sentence, " Fog shines. ").edits).toEqual([
    ...written.edits,
    { part: "cleared", text: "Fog shines.", was: "One piece." },
  ]);
});

test("left out is a change, as drafted is none", () => {
  expect(say(written, sentence, "").edits.at(-1)).toEqual({ part: "cleared", text: "", was: "One piece." });
  const changed = say(written, sentence, "Fog shines.");
  expect(say(changed, { ...sentence, text: "Fog shines.", edited: true }, "One piece.").edits).toEqual(
    written.edits,
  );
});

test("what was kept is held against the facts of now", () => {
  expect(keep(written, { ...sentence, part: "next", drafted: "Next: Mole." }).edits).toEqual([
    { part: "next", text: "Then the Gull.", was: "Next: Mole." },
  ]);
});
