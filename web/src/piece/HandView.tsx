import { useState } from "react";
import type { Schemas } from "../contract/client";
import { Keys } from "./Keys";
import { Neck } from "./Neck";

type Line = Schemas["Line"];

/** The hand on its instrument: where it lies, with a finger on each key or string, and what sounds. */
export function HandView(props: {
  piece: Schemas["Piece"];
  /** A time in the piece whose position is shown; the first position without one. */
  at?: number;
  sounding: number[];
}) {
  const { piece } = props;
  const lines = piece.lines.filter((l) => l.positions.length > 0);
  const [step, setStep] = useState(0);
  if (lines.length === 0) return null;
  const changes = [...new Set(lines.flatMap((l) => l.positions.map((p) => p.start)))].sort((a, b) => a - b);
  const time = props.at ?? changes[Math.min(step, changes.length - 1)] ?? 0;
  const here = lines.map((line) => ({ line, position: positionAt(line, time) }));
  const strings = piece.openStrings ?? [];
  return (
    <figure className="mt-4">
      <figcaption className="flex flex-wrap items-center gap-x-4">
        <span>
          {here.map(({ line, position }) => `${handName(line)}${position.name}`).join("; ")}
          <span className="fine"> {where(piece, here[0]?.position)}</span>
        </span>
        {changes.length > 1 && props.at === undefined && (
          <span className="ml-auto flex">
            <button
              type="button"
              className="quiet"
              disabled={step === 0}
              onClick={() => setStep(Math.max(0, Math.min(step, changes.length - 1) - 1))}
            >
              before
            </button>
            <span className="fine figures self-center">
              {Math.min(step, changes.length - 1) + 1} of {changes.length}
            </span>
            <button
              type="button"
              className="quiet"
              disabled={step >= changes.length - 1}
              onClick={() => setStep(step + 1)}
            >
              next
            </button>
          </span>
        )}
      </figcaption>
      {strings.length > 0 ? (
        <Neck
          strings={strings}
          place={here[0]?.position.keys ?? []}
          fretted={piece.material.instrument === "ukulele"}
          used={used(here)}
          sounding={props.sounding}
        />
      ) : (
        <Keys hands={here} sounding={props.sounding} />
      )}
    </figure>
  );
}

const handName = (l: Line) => (l.hand === "right" ? "Right: " : l.hand === "left" ? "Left: " : "");

function positionAt(line: Line, time: number) {
  const found = line.positions.filter((p) => p.start <= time + 1e-6).at(-1) ?? line.positions[0];
  if (!found) throw new Error("a line without a position is not shown");
  return found;
}

function where(piece: Schemas["Piece"], p: Schemas["HandPosition"] | undefined) {
  if (!p) return "";
  const bar = (b: number) => piece.barLabels[b - 1] ?? String(b);
  return p.fromBar === p.toBar ? `bar ${bar(p.fromBar)}` : `bars ${bar(p.fromBar)}–${bar(p.toBar)}`;
}

/** The stops of the notes in a position, each once. */
function used(here: { line: Line; position: Schemas["HandPosition"] }[]) {
  const out = new Map<string, Schemas["NoteFinger"]>();
  for (const { line, position } of here)
    for (const f of line.fingers)
      if (f.bar >= position.fromBar && f.bar <= position.toBar && f.string)
        out.set(`${f.string} ${f.pitch}`, f);
  return [...out.values()];
}
