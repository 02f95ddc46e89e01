const black = new Set([1, 3, 6, 8, 10]);
export const isBlack = (midi: number) => black.has(midi % 12);

/** The width of a white key in the drawing. */
export const w = 30;

/** A stretch of the keyboard that holds some keys, two octaves at least, and where each key stands. */
export function layOut(held: number[]) {
  const low = Math.max(21, octaveBelow(Math.min(...held) - 2));
  const high = Math.min(108, Math.max(Math.max(...held) + 3, low + 23));
  const keys = Array.from({ length: high - low + 1 }, (_, i) => low + i);
  const whites = keys.filter((k) => !isBlack(k));
  const x = (midi: number) => {
    const before = whites.filter((k) => k < midi).length;
    return isBlack(midi) ? before * w - 9 : before * w;
  };
  return { keys, whites, x };
}

/** The C or F at or below a key: a keyboard is cut where a group of black keys begins. */
function octaveBelow(midi: number) {
  let k = midi;
  while (k % 12 !== 0 && k % 12 !== 5) k--;
  return k;
}
