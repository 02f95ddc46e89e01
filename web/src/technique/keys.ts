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
