import type { Schemas } from "../contract/client";

/** The pencil marks that can be laid over a score, in the order of their switches. */
export const overlayNames = {
  direction: "Direction",
  interval: "Interval",
  names: "Names",
  fingers: "Fingers",
  guides: "Guide notes",
  chunks: "Chunks",
  patterns: "Equal bars",
  fresh: "New",
  hard: "Hard",
} as const;

export type Overlay = keyof typeof overlayNames;

/** Which marks a way of reading opens with. */
export function firstOverlays(approach: Schemas["Piece"]["approach"], forStudent: boolean): Overlay[] {
  const first: Record<typeof approach, Overlay[]> = {
    direction: ["direction"],
    interval: ["interval", "guides"],
    names: ["names"],
    position: ["fingers"],
  };
  return forStudent ? [...first[approach], "fresh"] : first[approach];
}

/** A stretch of the piece that was chosen, to be heard and found again elsewhere. */
export interface Chosen {
  kind: "chunk" | "pattern" | "motif" | "all";
  title: string;
  start: number;
  end: number;
  /** Where the same music comes again, in printed bars; empty for nowhere. */
  again: { words: string; start: number; end: number }[];
  /** For a chunk: its place among the smallest chunks, or −1. */
  chunk?: Schemas["Chunk"];
}
