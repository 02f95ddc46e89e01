import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { usePutFirst } from "../data/ladder";
import { leapSize } from "../data/words";
import { Refused } from "../parts/Problem";

/** The path that crosses between two books, as stops left and right, to be put on a ladder. */
export function PathBetween(props: {
  comparison: Schemas["BookComparison"];
  players: Schemas["LibraryView"]["players"];
}) {
  const { path, a, b } = props.comparison;
  const most = Math.max(...path.stops.map((s) => s.leap), 1);
  return (
    <section aria-label="A path between them" className="mt-6 border-t border-line pt-4">
      <h2>A path between them</h2>
      <p>{path.sentence}</p>
      <PutOnLadder path={path} players={props.players} />
      <ol className="mt-3 grid gap-x-8 md:grid-cols-2 xl:grid-cols-3">
        {path.stops.map((s, i) => (
          <li
            key={s.material}
            className="flex min-h-9 items-center gap-2 border-t border-line/50"
            title={`${s.title}: ${s.why}`}
          >
            <span className="figures fine w-6 text-right">{i + 1}</span>
            <span
              className={`size-3 shrink-0 ${s.source === a.source ? "rounded-full bg-working" : "border-2 border-preview bg-paper"}`}
              role="img"
              aria-label={s.source === a.source ? a.title : b.title}
            />
            <span className="line-clamp-1 min-w-0 flex-1">{s.title}</span>
            <span className={`figures text-fine ${s.cliff ? "font-semibold text-cliff" : "text-soft"}`}>
              {leapSize(s.leap)}
            </span>
            <span
              aria-hidden="true"
              className={`h-1.5 rounded-full ${s.cliff ? "bg-cliff" : "bg-working"}`}
              style={{ width: `${Math.max(3, (56 * s.leap) / most)}px` }}
            />
          </li>
        ))}
      </ol>
      <p className="fine mt-2 flex flex-wrap items-center gap-x-4">
        <span className="inline-flex items-center gap-1.5">
          <i className="size-3 rounded-full bg-working" /> {a.title}
        </span>
        <span className="inline-flex items-center gap-1.5">
          <i className="size-3 border-2 border-preview" /> {b.title}
        </span>
      </p>
      {path.left.length > 0 && (
        <p className="mt-2">
          <strong>Left out</strong>, because nothing in them would be new by then: {path.left.join(", ")}.
        </p>
      )}
    </section>
  );
}

function PutOnLadder(props: { path: Schemas["BookPath"]; players: Schemas["LibraryView"]["players"] }) {
  const [ladder, setLadder] = useState("");
  const put = usePutFirst(props.path.stops.map((s) => ({ material: s.material, strand: s.strand })));
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      <label className="flex items-center gap-2">
        <span className="fine">Put it next on the ladder of</span>
        <select value={ladder} onChange={(e) => setLadder(e.target.value)}>
          <option value="">nobody yet</option>
          {props.players.map((p) => (
            <option key={p.ladder} value={p.ladder}>
              {p.name}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="press"
        disabled={!ladder || put.isPending}
        onClick={() => put.mutate(ladder)}
      >
        Put it there
      </button>
      {put.data && (
        <Link className="underline" to={`/ladder/${ladder}`}>
          It stands on the ladder now
        </Link>
      )}
      <Refused error={put.error} />
    </div>
  );
}
