import type { Schemas } from "../contract/client";
import { useOverrule } from "../data/library";
import { Refused } from "../parts/Problem";
import { barName } from "../score/choose";

/** Moves the borders of a smallest chunk: ends it earlier, or joins it to the next. */
export function Borders({ piece, chunk }: { piece: Schemas["Piece"]; chunk: Schemas["Chunk"] }) {
  const overrule = useOverrule(piece.material.id);
  if (chunk.level > 0) return null;
  const inside = Array.from({ length: chunk.to - chunk.from }, (_, i) => chunk.from + i);
  const last = chunk.to === piece.bars;
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-2">
      <span className="fine">
        This chunk ends with {chunk.why}
        {chunk.own ? " (set by you)" : ""}.
      </span>
      {inside.map((bar) => (
        <button
          key={bar}
          type="button"
          className="quiet"
          disabled={overrule.isPending}
          onClick={() => overrule.mutate({ kind: "border", bars: [bar], ends: true })}
        >
          end it after {barName(piece, bar)}
        </button>
      ))}
      {!last && (
        <button
          type="button"
          className="quiet"
          disabled={overrule.isPending}
          onClick={() => overrule.mutate({ kind: "border", bars: [chunk.to], ends: false })}
        >
          join it to the next
        </button>
      )}
      <Refused error={overrule.error} />
    </p>
  );
}
