import { Link } from "react-router";
import type { Schemas } from "../contract/client";

/** Pieces that belong to no book. */
export function LoosePieces({ list }: { list: Schemas["MaterialBrief"][] }) {
  if (list.length === 0) return null;
  return (
    <details className="mt-4">
      <summary className="min-h-touch content-center">
        {list.length} {list.length === 1 ? "piece" : "pieces"} of no book
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
