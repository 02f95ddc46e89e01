import type { Schemas } from "../contract/client";
import type { Heard } from "../sound/player";

/** The hands that play, and how they go. */
export type Hands = "right" | "left" | "both" | "contrary";

/** One key in the drawing with the fingers that fall on it. */
export interface Pressed {
  midi: number;
  right?: number;
  left?: number;
  /** Degree from 1 within the octave. */
  degree: number;
}

/** How far the left hand plays below the right one. */
const below = 12;

/** The degrees count anew in each octave. */
export const degreeOf = (i: number, of: number, octaves: number) => (i % ((of - 1) / octaves)) + 1;

/** The keys of one hand on the way up, with its fingers. */
export function keysOf(s: Schemas["Scale"], hand: "right" | "left"): Pressed[] {
  return s.up.midi.map((m, i) => ({
    midi: hand === "right" ? m : m - below,
    [hand]: s.up[hand][i],
    degree: degreeOf(i, s.up.midi.length, s.octaves),
  }));
}

/**
 * What sounds: up and down again, a note a beat. In contrary motion both hands
 * begin on the same note and go apart, each with the fingers of its own.
 */
export function soundsOf(s: Schemas["Scale"], hands: Hands): Heard[] {
  const up = s.up.midi;
  const down = s.down.midi.slice(1);
  const line = [...up, ...down];
  const out: Heard[] = [];
  line.forEach((midi, at) => {
    if (hands !== "left") out.push({ at, length: 1, midi });
    if (hands === "left" || hands === "both") out.push({ at, length: 1, midi: midi - below });
  });
  if (hands === "contrary") {
    // The left hand begins on the same note and goes down through the scale below it.
    const octave = (up.at(-1) ?? 0) - (up[0] ?? 0);
    const left = [...s.down.midi.map((m) => m - octave), ...up.slice(1).map((m) => m - octave)];
    left.forEach((midi, at) => void out.push({ at, length: 1, midi }));
  }
  return out;
}

/** The beats under the notes; the first of each octave is marked. */
export const beatsOf = (s: Schemas["Scale"]) =>
  Array.from({ length: 2 * s.up.midi.length - 1 }, (_, at) => ({ at, first: at % 4 === 0 }));
