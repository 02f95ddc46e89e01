/** The twelve keys by fifths from C, by the names that are written. */
const major = ["C", "G", "D", "A", "E", "B", "Gb", "Db", "Ab", "Eb", "Bb", "F"];
/** The minor keys with the same signs: A minor for C major. */
const minor = ["A", "E", "B", "F#", "C#", "G#", "Eb", "Bb", "F", "C", "G", "D"];

/** The keys in which a cycle of a kind can begin. */
export const keysFor = (kind: string): string[] => (kind.includes("minor") ? minor : major);

/** A key in another kind: by the same name where it is written there, else as the same key on the keyboard. */
export function nextKey(key: string, kind: string): string {
  const there = keysFor(kind);
  return there.includes(key) ? key : (there.find((k) => place(k) === place(key)) ?? "C");
}

const letters: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

/** Where a key lies in the octave, from 0 for C. */
export function place(key: string): number {
  const sharps = key.split("#").length - 1;
  const flats = key.slice(1).split("b").length - 1;
  return ((letters[key[0] ?? "C"] ?? 0) + sharps - flats + 12) % 12;
}

/** A key as it is printed. */
export const sign = (key: string): string =>
  key.slice(0, 1) + key.slice(1).replaceAll("b", "♭").replaceAll("#", "♯");
