import type { Schemas } from "../contract/client";
import { useDescribe } from "../data/library";
import { Refused } from "../parts/Problem";

/** What the piece is like: the words that were kept, and those that the notes propose. */
export function Moods({ piece }: { piece: Schemas["Piece"] }) {
  const describe = useDescribe(piece.material.id);
  if (piece.tags.length === 0 && piece.proposed.length === 0) return null;
  const { title, composer } = piece.material;
  return (
    <section aria-label="What it is like" className="border-b border-line py-3">
      <h3>What it is like</h3>
      {piece.tags.length > 0 && <p>{piece.tags.join(", ")}</p>}
      {piece.proposed.map((p) => (
        <p key={p.tag} className="flex items-center justify-between gap-3">
          <span>
            {p.tag}? <span className="fine">{p.why}</span>
          </span>
          <button
            type="button"
            className="quiet shrink-0"
            disabled={describe.isPending}
            onClick={() => describe.mutate({ title, composer, tags: [...piece.tags, p.tag] })}
          >
            keep<span className="sr-only"> {p.tag}</span>
          </button>
        </p>
      ))}
      <Refused error={describe.error} />
    </section>
  );
}
