import type { Schemas } from "../contract/client";

/** What a file held that was not taken over, or had to be guessed, and where. */
export function Skipped({ list }: { list: Schemas["Skip"][] }) {
  if (list.length === 0) return null;
  return (
    <details className="fine mt-2">
      <summary className="min-h-touch content-center">
        Not taken over from the file, mended or guessed: {list.length}{" "}
        {list.length === 1 ? "kind of thing" : "kinds of things"}
      </summary>
      <ul className="list-disc pl-5">
        {list.map((s) => (
          <li key={s.what}>
            {s.mended
              ? `Mended in ${s.where}: ${s.what}`
              : `${s.what}, ${s.count === 1 ? "once" : `${s.count} times`}, first at ${s.where}`}
          </li>
        ))}
      </ul>
    </details>
  );
}
