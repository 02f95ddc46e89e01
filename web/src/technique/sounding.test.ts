import { describe, expect, it } from "vitest";
import type { Schemas } from "../contract/client";
import { boards, firstOf, groupsOf, heard, meetings, soundingAt } from "./sounding";

type Note = Schemas["ExerciseNote"];
const note = (x: Partial<Note>): Note => ({
  at: 0,
  length: 1,
  midi: 60,
  name: "",
  hand: "",
  finger: 1,
  string: 0,
  above: 0,
  pluck: "",
  bow: "",
  silent: false,
  meet: "",
  group: 0,
  begins: false,
  loud: 0.68,
  ...x,
});

describe("what an exercise shows while it sounds", () => {
  it("lights what sounds and what is mimed with it, and lets nothing silent be heard", () => {
    const notes = [
      note({ midi: 60, hand: "right" }),
      note({ midi: 48, hand: "left", silent: true }),
      note({ at: 1, midi: 62 }),
    ];
    expect(heard(notes).map((n) => n.midi)).toEqual([60, 62]);
    expect(soundingAt(notes, 0.4, [60]).map((n) => n.midi)).toEqual([60, 48]);
    expect(soundingAt(notes, 1.1, [62]).map((n) => n.midi)).toEqual([62]);
    expect(soundingAt(notes, 0.4, [])).toHaveLength(1);
  });

  it("tells the string of two notes of one pitch by the time", () => {
    const roll = [
      note({ string: 4, midi: 67 }),
      note({ at: 0.5, length: 0.5, string: 3, midi: 60 }),
      note({ at: 1, string: 1, midi: 67 }),
    ];
    expect(soundingAt(roll, 1.2, [67])[0]?.string).toBe(1);
  });

  it("takes every place once, in the order in which it comes", () => {
    expect(firstOf([3, 1, 3, 2, 1], (n) => n)).toEqual([3, 1, 2]);
  });
});

describe("the hands of a keyboard exercise", () => {
  it("lie on one board each when they play at once or one after the other", () => {
    const together = [note({ hand: "right", midi: 60 }), note({ hand: "left", midi: 48 })];
    expect(boards(together)).toMatchObject({ atOnce: true, shared: false });
    const apart = [note({ hand: "right", midi: 60 }), note({ at: 4, hand: "left", midi: 48 })];
    expect(boards(apart)).toMatchObject({ atOnce: false, shared: false });
  });

  it("share a board when a scale goes from one to the other and back", () => {
    const shared = [
      note({ hand: "left", midi: 60 }),
      note({ at: 1, hand: "left", midi: 62 }),
      note({ at: 2, hand: "right", midi: 64 }),
      note({ at: 3, hand: "left", midi: 62 }),
    ];
    expect(boards(shared).shared).toBe(true);
  });

  it("meet where both say so at one time", () => {
    const right = [note({ hand: "right", midi: 61, meet: "pair" }), note({ at: 1, hand: "right", midi: 63 })];
    const left = [
      note({ hand: "left", midi: 49, meet: "pair" }),
      note({ at: 1, hand: "left", midi: 51, meet: "pair" }),
    ];
    expect(meetings(right, left).map((m) => [m.right.midi, m.left.midi])).toEqual([[61, 49]]);
  });

  it("take one board when only one of them plays", () => {
    const right = [note({ hand: "right", midi: 60 }), note({ at: 1, hand: "right", midi: 62 })];
    expect(boards(right)).toMatchObject({ atOnce: false, shared: false });
    expect(boards(right).left).toEqual([]);
    expect(boards([])).toMatchObject({ atOnce: false, shared: false });
  });

  it("meet at a place once, however often they come there", () => {
    const at = (t: number) => [
      note({ at: t, hand: "right", midi: 64, meet: "same", finger: 3 }),
      note({ at: t, hand: "left", midi: 52, meet: "same", finger: 3 }),
    ];
    const notes = [...at(2), ...at(12)];
    const hands = boards(notes);
    expect(hands.atOnce).toBe(true);
    expect(meetings(hands.right, hands.left)).toHaveLength(1);
  });

  it("do not meet where only one of them says so", () => {
    const right = [note({ hand: "right", midi: 60, meet: "same" })];
    expect(meetings(right, [note({ hand: "left", midi: 48 })])).toEqual([]);
    expect(meetings(right, [note({ at: 3, hand: "left", midi: 48, meet: "same" })])).toEqual([]);
  });

  it("finds the groups of three and four fingers on the way up", () => {
    const keys = [3, 3, 3, 4, 4, 4, 4, 4].map((group, i) =>
      note({ midi: 60 + i, group, begins: i === 0 || i === 3 }),
    );
    expect(groupsOf(keys).map((g) => [g.group, g.keys[0]?.midi, g.keys.length])).toEqual([
      [3, 60, 3],
      [4, 63, 5],
    ]);
    expect(groupsOf([note({})])).toEqual([]);
  });
});
