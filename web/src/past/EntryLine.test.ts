import { expect, it } from "vitest";
import type { Entry } from "../data/outbox";
import { changed } from "./EntryLine";

it("changes an entry by taking it back and writing it anew at the same time", () => {
  const e = {
    id: "a",
    at: "2026-04-27T15:00:00Z",
    kind: "mark",
    material: "m",
    focus: "f",
    mark: "full",
  } as Entry;
  const [undo, anew] = changed(e, { mark: "part" });
  expect(undo).toMatchObject({ kind: "correction", corrects: "a" });
  expect(anew).toMatchObject({ kind: "mark", at: e.at, material: "m", focus: "f", mark: "part" });
  expect(anew?.id).not.toBe("a");
});
