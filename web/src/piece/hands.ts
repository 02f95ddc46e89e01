import type { Schemas } from "../contract/client";

type Line = Schemas["Line"];

/** The times at which a hand takes a new position, each once. */
export const changesOf = (lines: Line[]) =>
  [...new Set(lines.flatMap((l) => l.positions.map((p) => p.start)))].sort((a, b) => a - b);

export const handName = (l: Line) => (l.hand === "right" ? "Right: " : l.hand === "left" ? "Left: " : "");

export function positionAt(line: Line, time: number) {
  const found = line.positions.filter((p) => p.start <= time + 1e-6).at(-1) ?? line.positions[0];
  if (!found) throw new Error("a line without a position is not shown");
  return found;
}

export function where(piece: Schemas["Piece"], p: Schemas["HandPosition"] | undefined) {
  if (!p) return "";
  const bar = (b: number) => piece.barLabels[b - 1] ?? String(b);
  return p.fromBar === p.toBar ? `bar ${bar(p.fromBar)}` : `bars ${bar(p.fromBar)}–${bar(p.toBar)}`;
}

/** The stops of the notes in a position, each once. */
export function used(here: { line: Line; position: Schemas["HandPosition"] }[]) {
  const out = new Map<string, Schemas["NoteFinger"]>();
  for (const { line, position } of here)
    for (const f of line.fingers)
      if (f.bar >= position.fromBar && f.bar <= position.toBar && f.string)
        out.set(`${f.string} ${f.pitch}`, f);
  return [...out.values()];
}
