import type { Schemas } from "../contract/client";
import type { Heard } from "../sound/player";

type Note = Schemas["ExerciseNote"];

/** What is heard: silent notes are not. */
export const heard = (notes: Note[]): Heard[] =>
  notes.filter((n) => !n.silent).map((n) => ({ at: n.at, length: n.length, midi: n.midi, loud: n.loud }));

/** The notes that are being played at a time: those that sound, and those that are mimed with them. */
export const soundingAt = (notes: Note[], at: number, midi: number[]) =>
  notes.filter(
    (n) => n.at <= at + 0.02 && at < n.at + n.length - 0.02 && (n.silent || midi.includes(n.midi)),
  );

/** The places that notes take, each once, in the order in which they come: keys under a hand, or dots on strings. */
export function firstOf<T>(list: T[], place: (x: T) => string | number): T[] {
  const seen = new Set<string | number>();
  return list.filter((x) => {
    const p = place(x);
    if (seen.has(p)) return false;
    seen.add(p);
    return true;
  });
}

/** The groups of three and four fingers of a hand on its way up: the keys of each, in order. */
export function groupsOf(keys: Note[]) {
  const out: { group: number; keys: Note[] }[] = [];
  for (const n of keys) {
    if (n.group === 0) continue;
    if (n.begins || out.length === 0) out.push({ group: n.group, keys: [] });
    out.at(-1)?.keys.push(n);
  }
  return out;
}

/** How the hands of a keyboard exercise lie: one board for both, or one each, the left one so far below. */
export function boards(notes: Note[]) {
  const of = (hand: string) => notes.filter((n) => n.hand === hand);
  const right = of("right");
  const left = of("left");
  const times = new Set(right.map((n) => n.at));
  const atOnce = left.some((n) => times.has(n.at));
  // A scale that is shared out goes to the other hand and comes back.
  const begins = Math.min(...right.map((n) => n.at));
  const shared = !atOnce && left.some((n) => n.at < begins) && left.some((n) => n.at > begins);
  return { right, left, atOnce, shared };
}

/** Where both hands meet: the notes that meet, each pair of places once. */
export function meetings(right: Note[], left: Note[]) {
  const pairs = right
    .filter((r) => r.meet)
    .flatMap((r) => {
      const l = left.find((n) => n.meet && Math.abs(n.at - r.at) < 0.01);
      return l ? [{ right: r, left: l }] : [];
    });
  return firstOf(pairs, (p) => `${p.right.midi} ${p.left.midi}`);
}
