import type { Schemas } from "../contract/client";
import type { Chosen } from "./overlays";

type Piece = Schemas["Piece"];

export const barName = (piece: Piece, bar: number) => `bar ${piece.barLabels[bar - 1] ?? bar}`;

const barEnd = (piece: Piece, bar: number) => {
  const b = piece.barTimes[bar - 1];
  return b ? b.start + b.length : 0;
};

/** A chunk, and the chunks of the same size with the same notes. */
export function chooseChunk(piece: Piece, chunk: Schemas["Chunk"]): Chosen {
  const root = chunk.sameAs || chunk.from;
  const again = piece.chunks
    .filter((c) => c.level === 0 && c !== chunk && (c.sameAs || c.from) === root && chunk.level === 0)
    .map((c) => ({ words: c.where, start: c.start, end: c.end }));
  return { kind: "chunk", title: chunk.where, start: chunk.start, end: chunk.end, again, chunk };
}

/** A pattern at one of its bars, and its other bars. */
export function choosePattern(piece: Piece, pattern: Schemas["Pattern"], bar: number): Chosen {
  const at = (b: number) => ({
    words: barName(piece, b),
    start: piece.barTimes[b - 1]?.start ?? 0,
    end: barEnd(piece, b),
  });
  const { words, start, end } = at(bar);
  const again = pattern.bars.filter((b) => b !== bar).map(at);
  return { kind: "pattern", title: `Pattern ${pattern.letter}, ${words}`, start, end, again };
}

/** A motif at its first place, and the others. */
export function chooseMotif(piece: Piece, motif: Schemas["Motif"]): Chosen {
  const at = (p: Schemas["Motif"]["at"][number]) => ({
    words: `${barName(piece, p.bar)}, beat ${p.beat}`,
    start: p.start,
    end: p.end,
  });
  const [first, ...rest] = motif.at.map(at);
  return {
    kind: "motif",
    title: `Motif ${motif.name}, ${first?.words ?? ""}`,
    start: first?.start ?? 0,
    end: first?.end ?? 0,
    again: rest,
  };
}

export function chooseAll(piece: Piece): Chosen {
  return {
    kind: "all",
    title: "The whole piece",
    start: 0,
    end: barEnd(piece, piece.barTimes.length),
    again: [],
  };
}
