import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { activityNow, questionNow } from "./meeting";
import type { Entry } from "./outbox";

let made = 0;
const entry = (e: Partial<Entry>): Entry => ({
  id: `e${++made}`,
  at: "2026-05-04T16:00:00Z",
  kind: "meeting",
  ...e,
});
const activity: Schemas["MeetingActivity"] = {
  id: "echo-pitch",
  part: "listening",
  name: "Echo",
  say: "",
  minutes: 4,
  kind: "pitch",
  outcomes: [
    { id: "matched", name: "matched" },
    { id: "far", name: "far" },
  ],
  tries: [
    { level: 1, words: "one tone", sounds: [] },
    { level: 2, words: "two tones", sounds: [] },
  ],
  level: 1,
  next: [
    { level: 1, outcome: "matched", next: 2 },
    { level: 2, outcome: "far", next: 1 },
  ],
  came: [],
  last: "",
};
const question = (
  skill: string,
  following: Schemas["PlacementQuestion"]["following"] = [],
): Schemas["PlacementQuestion"] => ({
  skill,
  name: skill,
  how: "show",
  say: "",
  why: "",
  heard: false,
  until: 0,
  following,
});

describe("a meeting without a connection", () => {
  it("goes on to the next level by what came", () => {
    expect(activityNow(activity, [])).toEqual({ level: 1, came: [], last: "" });
    const taps = [
      entry({ goal: "echo-pitch", outcome: "matched", step: 1 }),
      entry({ goal: "other", outcome: "far", step: 1 }),
      entry({ goal: "echo-pitch", outcome: "far", step: 2 }),
    ];
    expect(activityNow(activity, taps)).toEqual({
      level: 1,
      came: ["1: matched", "2: far"],
      last: taps[2]?.id,
    });
    const back = [...taps, entry({ kind: "correction", corrects: taps[2]?.id })];
    expect(activityNow(activity, back)).toEqual({ level: 2, came: ["1: matched"], last: taps[0]?.id });
  });

  it("walks the questions by the answers, and says when only the server knows more", () => {
    const p = {
      question: question("a", [{ answer: "yes", question: question("b") }]),
    } as Schemas["Placement"];
    const yes = entry({ kind: "probe", skill: "a", outcome: "yes" });
    expect(questionNow(p, []).question?.skill).toBe("a");
    expect(questionNow(p, [yes])).toMatchObject({ answered: 1, question: { skill: "b" } });
    expect(questionNow(p, [yes, entry({ kind: "probe", skill: "b", outcome: "no" })])).toEqual({
      answered: 2,
      question: undefined,
    });
  });
});
