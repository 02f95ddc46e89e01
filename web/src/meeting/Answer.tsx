import { useState } from "react";
import { Link } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { type Moved, useAccept } from "../data/meeting";
import { Refused } from "../parts/Problem";

/** What was found: strands, holes, and where each book would begin, with the ways compared. */
export function Answer(props: {
  ladder: string;
  placement: Schemas["Placement"];
  moved: Moved | undefined;
  move: (moved: Moved | undefined) => void;
}) {
  const p = props.placement;
  const [book, setBook] = useState<string>();
  const e = p.entries.find((x) => x.book === (props.moved?.book ?? book)) ?? p.entries[0];
  return (
    <div className="mt-6 grid gap-6">
      <Strands strands={p.strands} />
      {p.contradictions.length > 0 && (
        <section aria-label="Answers that speak against each other">
          <h2 className="text-lg">Answers that speak against each other</h2>
          <ul>
            {p.contradictions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </section>
      )}
      {p.holes.length > 0 && (
        <section aria-label="Holes">
          <h2 className="text-lg">Missing under what is played</h2>
          <ul className="grid gap-x-8 sm:grid-cols-2">
            {p.holes.slice(0, 10).map((h) => (
              <li key={h.skill} className="border-t border-line/60 py-1">
                {h.name} <span className="fine block">{h.soon}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {e && (
        <section aria-label="Where to begin">
          <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
            <h2 className="text-lg">Where to begin</h2>
            {p.entries.length > 1 && (
              <select
                aria-label="Book"
                value={e.book}
                onChange={(x) => {
                  setBook(x.target.value);
                  props.move(undefined);
                }}
              >
                {p.entries.map((x) => (
                  <option key={x.book} value={x.book}>
                    {x.title}
                  </option>
                ))}
              </select>
            )}
          </div>
          <p className="mt-1">{e.words}</p>
          {e.needs && <p className="fine">{e.needs}</p>}
          <Track entry={e} move={(entry) => props.move({ book: e.book, entry })} />
          <Leaps leaps={e.leaps} />
          <Routes key={`${e.book} ${e.at}`} ladder={props.ladder} entry={e} />
        </section>
      )}
    </div>
  );
}

/** How each strand stands: there, open, missing. */
function Strands({ strands }: { strands: Schemas["PlacementStrand"][] }) {
  return (
    <section aria-label="Strands">
      <h2 className="text-lg">What is settled</h2>
      <ul className="mt-1 grid gap-x-8 gap-y-1 sm:grid-cols-2 lg:grid-cols-3">
        {strands.map((s) => {
          const all = s.there + s.missing + s.open;
          return (
            <li key={s.name} className="flex items-center gap-3">
              <span className="w-32 shrink-0">{s.name}</span>
              <span
                className="flex h-4 flex-1 overflow-hidden rounded-full border border-line"
                role="img"
                aria-label={`${s.there} there, ${s.open} open, ${s.missing} missing`}
              >
                <span className="bg-working" style={{ width: `${(100 * s.there) / all}%` }} />
                <span
                  style={{
                    width: `${(100 * s.open) / all}%`,
                    background:
                      "repeating-linear-gradient(45deg, var(--color-lit) 0 4px, var(--color-sheet) 4px 8px)",
                  }}
                />
              </span>
              <span className="fine figures w-16 text-right">
                {s.open > 0 ? `${s.open} open` : "settled"}
              </span>
            </li>
          );
        })}
      </ul>
      <p className="fine mt-1">Filled: there. Striped: open. Empty: not there.</p>
    </section>
  );
}

/** The book as a line; the entry is a slider on it. */
function Track({ entry: e, move }: { entry: Schemas["PlacementEntry"]; move: (piece: string) => void }) {
  const [at, setAt] = useState<number>();
  const here = at ?? e.at;
  const piece = e.pieces[Math.min(here, e.pieces.length - 1)];
  return (
    <label className="mt-2 block">
      <span className="fine">
        piece {Math.min(here + 1, e.pieces.length)} of {e.pieces.length}: {piece?.name}
        {e.chosen && " (moved by you)"}
      </span>
      <input
        type="range"
        className="w-full accent-working"
        min={0}
        max={e.pieces.length - 1}
        value={Math.min(here, e.pieces.length - 1)}
        onChange={(x) => setAt(x.target.valueAsNumber)}
        onPointerUp={() => piece && move(piece.id)}
        onKeyUp={() => piece && move(piece.id)}
      />
    </label>
  );
}

/** The first steps after the entry, as heights with what is new. */
function Leaps({ leaps }: { leaps: Schemas["PlacementLeap"][] }) {
  const most = Math.max(1.5, ...leaps.map((l) => l.size));
  return (
    <ol className="mt-3 grid gap-1">
      {leaps.map((l) => (
        <li key={l.title} className="grid grid-cols-[minmax(0,14rem)_6rem_1fr] items-center gap-3">
          <span className="truncate">{l.title}</span>
          <span className="flex items-center gap-2">
            <span className="h-3 rounded-full bg-preview" style={{ width: `${(60 * l.size) / most}%` }} />
            <span className="fine figures">{l.words}</span>
          </span>
          <span className="fine truncate">{l.firsts.join(", ")}</span>
        </li>
      ))}
    </ol>
  );
}

function Routes({ ladder, entry: e }: { ladder: string; entry: Schemas["PlacementEntry"] }) {
  const [done, setDone] = useState<string[]>();
  const accept = useAccept(ladder, (effect) => setDone(effect.words));
  if (done)
    return (
      <div role="status" className="mt-4 rounded-lg border border-working bg-sheet p-4">
        <ul>
          {done.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
        <Link className="press mt-2" to={`/ladder/${ladder}`}>
          To the ladder
        </Link>
      </div>
    );
  return (
    <>
      <ul className="mt-4 grid gap-3 md:grid-cols-3">
        {e.routes.map((r) => (
          <li key={r.kind} className="flex flex-col rounded-lg border border-line bg-sheet p-4">
            <h3 className="text-base">{r.name}</h3>
            <p className="flex-1">{r.words}</p>
            {r.fill.length > 0 && <p className="fine mt-1">{r.fill.join(" · ")}</p>}
            <button
              type="button"
              className="press press-main mt-3"
              disabled={accept.isPending}
              onClick={() =>
                accept.mutate({
                  batch: ulid(),
                  book: e.book,
                  route: r.kind,
                  ...(e.chosen && { entry: e.pieces[e.at]?.id }),
                })
              }
            >
              Begin this way
            </button>
          </li>
        ))}
      </ul>
      <Refused error={accept.error} />
    </>
  );
}
