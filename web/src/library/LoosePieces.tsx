import { Link } from "react-router";
import type { Schemas } from "../contract/client";

/** Pieces that belong to no book. */
export function LoosePieces({ list }: { list: Schemas["MaterialBrief"][] }) {
  const pieces = list.filter((m) => !m.exercise);
  const exercises = list.filter((m) => m.exercise);
  return (
    <>
      <Folded
        ordered
        list={pieces}
        name={pieces.length === 1 ? "piece without a book" : "pieces without a book"}
      />
      <Folded
        list={exercises}
        name={exercises.length === 1 ? "exercise of the staircases" : "exercises of the staircases"}
      />
    </>
  );
}

function Folded({
  list,
  name,
  ordered,
}: {
  list: Schemas["MaterialBrief"][];
  name: string;
  ordered?: boolean;
}) {
  if (list.length === 0) return null;
  return (
    <details className="mt-4">
      <summary className="min-h-touch content-center">
        {list.length} {name}
      </summary>
      {ordered && list.some((m) => m.difficulty !== undefined) && (
        <p className="fine">The easiest first: how hard each is for a beginner, and what makes it so.</p>
      )}
      <ul>
        {list.map((m) => (
          <li key={m.id}>
            <Link
              to={`/piece/${m.id}`}
              className="flex min-h-touch items-center justify-between gap-3 underline-offset-4 hover:underline"
            >
              <span>{m.title}</span>
              {ordered && m.difficulty !== undefined && (
                <span className="fine text-right">
                  {m.heaviest} <strong className="figures">{m.difficulty.toFixed(1)}</strong>
                </span>
              )}
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}
