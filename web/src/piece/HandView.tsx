import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useFamily } from "../data/people";
import { changesOf, handName, positionAt, used, where } from "./hands";
import { Keys } from "./Keys";
import { Neck } from "./Neck";

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
  const family = useFamily(piece.material.instrument);
  if (lines.length === 0) return null;
  const changes = changesOf(lines);
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
          fretted={family === "plucked"}
          used={used(here)}
          sounding={props.sounding}
        />
      ) : (
        <Keys hands={here} sounding={props.sounding} />
      )}
    </figure>
  );
}
