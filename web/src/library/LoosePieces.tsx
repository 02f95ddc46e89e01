import { Link } from "react-router";
import type { Schemas } from "../contract/client";

/** Pieces that belong to no book. */
export function LoosePieces({ list }: { list: Schemas["MaterialBrief"][] }) {
  const pieces = list.filter((m) => !m.exercise);
  const exercises = list.filter((m) => m.exercise);
  return (
    <>
      <Folded list={pieces} name={pieces.length === 1 ? "piece without a book" : "pieces without a book"} />
      <Folded
        list={exercises}
        name={exercises.length === 1 ? "exercise of the staircases" : "exercises of the staircases"}
      />
    </>
  );
}

function Folded({ list, name }: { list: Schemas["MaterialBrief"][]; name: string }) {
  if (list.length === 0) return null;
  return (
    <details className="mt-4">
      <summary className="min-h-touch content-center">
        {list.length} {name}
      </summary>
      <ul>
        {list.map((m) => (
          <li key={m.id}>
            <Link
              to={`/piece/${m.id}`}
              className="flex min-h-touch items-center underline-offset-4 hover:underline"
            >
              {m.title}
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}
