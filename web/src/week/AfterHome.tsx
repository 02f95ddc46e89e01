import type { Schemas } from "../contract/client";
import { type Hand, setAside } from "./hand";

/** How many lines stand above the days; the others are one touch away. */
const inSight = 3;

/** What home showed of the week before and what comes of it in this one; each can be taken back. */
export function AfterHome(props: { week: Schemas["Week"]; busy: boolean; change: (h: Hand) => void }) {
  const { week, busy, change } = props;
  if (week.home.length === 0) return null;
  const lines = (list: Schemas["Week"]["home"]) => (
    <ul>
      {list.map((a) => (
        <li
          key={a.key}
          className="flex flex-wrap items-center justify-between gap-x-3 border-b border-line/60"
        >
          <span className={a.aside ? "text-soft" : ""}>
            {a.showed} <span aria-hidden="true">→</span> <strong className="font-semibold">{a.then}</strong>
          </span>
          <button
            type="button"
            className="quiet no-print"
            disabled={busy}
            onClick={() => change(setAside(week.hand, a.key, !a.aside))}
          >
            {a.aside ? "Let it count" : "Take it back"}
            <span className="sr-only">: {a.showed}</span>
          </button>
        </li>
      ))}
    </ul>
  );
  const rest = week.home.slice(inSight);
  return (
    <section aria-label="From home" className="mt-4 border-l-4 border-review pl-3">
      <h2 className="text-lg">What home showed, and what comes of it</h2>
      {lines(week.home.slice(0, inSight))}
      {rest.length > 0 && (
        <details>
          <summary className="flex min-h-touch items-center">and {rest.length} more</summary>
          {lines(rest)}
        </details>
      )}
    </section>
  );
}
