import { useState } from "react";
import { useSkills } from "../data/library";
import { useRequirements, useResetRequirements, useSetRequirements } from "../data/shelve";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Sheet } from "../parts/Sheet";

/** What a book takes for granted when it begins: proposed, written anew by the teacher, and printed as a page to tick. */
export function Requirements({ book }: { book: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="quiet" onClick={() => setOpen(true)}>
        What it takes for granted
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="What the book takes for granted"
        says="A student from elsewhere is held against this list."
      >
        {open && <List book={book} />}
      </Sheet>
    </>
  );
}

function List({ book }: { book: string }) {
  const needs = useRequirements(book);
  const skills = useSkills();
  const set = useSetRequirements(book);
  const reset = useResetRequirements(book);
  if (needs.isPending) return <Waiting />;
  if (!needs.data) return <Problem error={needs.error} again={() => needs.refetch()} />;
  const n = needs.data;
  const ids = n.skills.map((s) => s.skill);
  const busy = set.isPending || reset.isPending;
  const pages = `/api/library/books/${book}/checks`;
  return (
    <>
      <p>{n.sentence}</p>
      <ul className="mt-2 max-h-[45vh] overflow-y-auto">
        {n.skills.map((s) => (
          <li
            key={s.skill}
            className="flex items-center justify-between gap-3 border-t border-line/60 py-0.5"
          >
            <span>
              {s.name}
              <span className="fine block">{s.under}</span>
            </span>
            <button
              type="button"
              className="quiet shrink-0"
              aria-label={`Leave out: ${s.name}`}
              disabled={busy}
              onClick={() => set.mutate(ids.filter((id) => id !== s.skill))}
            >
              Leave out
            </button>
          </li>
        ))}
      </ul>
      <label className="mt-3 flex flex-col gap-1">
        <span className="fine">add a skill</span>
        <select
          value=""
          disabled={busy}
          onChange={(e) => e.target.value && set.mutate([...ids, e.target.value])}
        >
          <option value="">choose</option>
          {(skills.data ?? [])
            .filter((s) => !ids.includes(s.id))
            .map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
        </select>
      </label>
      <Refused error={set.error ?? reset.error} />
      <div className="mt-3 flex flex-wrap items-center gap-2">
        {n.skills.length > 0 && (
          <a className="press press-main" href={pages} target="_blank" rel="noreferrer">
            Print it to tick
          </a>
        )}
        {n.own && (
          <button type="button" className="press" disabled={busy} onClick={() => reset.mutate(undefined)}>
            As proposed
          </button>
        )}
      </div>
      {n.units.length > 0 && (
        <p className="mt-3">
          <span className="fine block">a page to go through before</span>
          {n.units.map((u) => (
            <a
              key={u}
              className="quiet"
              href={`${pages}?unit=${encodeURIComponent(u)}`}
              target="_blank"
              rel="noreferrer"
            >
              {u}
            </a>
          ))}
        </p>
      )}
    </>
  );
}
