import type { Schemas } from "../contract/client";
import { useOverrule } from "../data/library";
import { Refused } from "../parts/Problem";

/** Of a score with several parts: which one the student plays. The others play along and are never asked for. */
export function WhosePart({ piece }: { piece: Schemas["Piece"] }) {
  const overrule = useOverrule(piece.material.id);
  if (piece.parts.length < 2) return null;
  return (
    <section aria-label="Whose part" className="border-b border-line py-3">
      <h3>Which part is the student’s?</h3>
      {piece.askPart && (
        <p className="fine">
          This is a guess: press the right one, also when it is the one that is marked. The others play along.
        </p>
      )}
      <div className="mt-1 flex flex-wrap gap-2">
        {piece.parts.map((p, part) => (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: parts have no other name of their own, and never change places
            key={part}
            type="button"
            className="press"
            aria-pressed={p.played}
            disabled={overrule.isPending}
            onClick={() => overrule.mutate({ kind: "part", part })}
          >
            {p.name}
          </button>
        ))}
      </div>
      <Refused error={overrule.error} />
    </section>
  );
}
