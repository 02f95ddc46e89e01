import type { Schemas } from "../contract/client";

/** How high the piece lies in each dimension, beside what the student has there: a bar for the piece, a notch for the student. */
export function Profile({ piece }: { piece: Schemas["Piece"] }) {
  const most = Math.max(0, ...piece.loads.map((l) => Math.max(l.worth, l.secure ?? 0)));
  if (most === 0) return null;
  const known = piece.loads.some((l) => l.known);
  return (
    <div className="mt-3">
      <h3>How hard, and in what</h3>
      {piece.pace && <p>{piece.pace}</p>}
      {known && <p className="fine">The notch is what is secure; what lies over it is red.</p>}
      <ul className="mt-1 space-y-1">
        {piece.loads.map((l) => (
          <li key={l.dimension}>
            <div className="flex items-baseline justify-between gap-3">
              <span>{l.name}</span>
              <span className="text-right text-soft">
                {l.words}
                {l.above ? `; ${l.where}` : ""}
              </span>
            </div>
            <div className="relative h-2 rounded-full bg-line" aria-hidden="true">
              <i
                className="absolute inset-y-0 left-0 rounded-full"
                style={{
                  width: `${(100 * l.worth) / most}%`,
                  background: l.above ? "var(--color-cliff)" : "var(--color-working)",
                }}
              />
              {l.known && (
                <i
                  className="absolute -inset-y-0.5 w-1 rounded-sm bg-ink"
                  style={{ left: `calc(${(100 * (l.secure ?? 0)) / most}% - 2px)` }}
                />
              )}
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}
