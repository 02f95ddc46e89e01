import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useEraseStudent, useKeepStudent } from "../data/account";
import { Refused } from "../parts/Problem";
import { Sheet } from "../parts/Sheet";

/** What is kept about a student: taken out as one file, or deleted for good with a day to regret. */
export function Data({ of: p }: { of: Schemas["StudentPage"] }) {
  const [open, setOpen] = useState(false);
  const erase = useEraseStudent(p.student, () => setOpen(false));
  const keep = useKeepStudent(p.student);
  return (
    <section aria-label="What is kept">
      <h2>What is kept about {p.first}</h2>
      {p.erased ? (
        <div role="status" className="mt-2 border-l-4 border-cliff bg-fold px-3 py-2">
          <p>{p.erased}</p>
          <button
            type="button"
            className="press mt-2"
            disabled={keep.isPending}
            onClick={() => keep.mutate(undefined)}
          >
            Take it back
          </button>
          <Refused error={keep.error} />
        </div>
      ) : (
        <p className="mt-1">
          A family may ask for all of it, and for its deletion. Keep what your local rules ask you to keep, no
          more.
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <a className="press" href={`/api/students/${p.student}/data`} download>
          Export everything
        </a>
        {!p.erased && (
          <button type="button" className="press" onClick={() => setOpen(true)}>
            Delete everything
          </button>
        )}
      </div>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Delete everything about ${p.first}?`}
        says="It goes in a day, until when it can be taken back. Take it out first if the family wants it."
      >
        <p>The link of the family opens nothing from now on.</p>
        {p.namedIn.length > 0 && (
          <div className="border-l-4 border-cliff bg-fold px-3 py-2">
            <p>
              The library keeps these, and they have the name in them. Rename them first if they are meant:
            </p>
            <ul className="mt-1 list-disc pl-5">
              {p.namedIn.slice(0, 12).map((title) => (
                <li key={title}>{title}</li>
              ))}
            </ul>
            {p.namedIn.length > 12 && <p className="fine">and {p.namedIn.length - 12} more</p>}
          </div>
        )}
        <Refused error={erase.error} />
        <button
          type="button"
          className="press press-main"
          disabled={erase.isPending}
          onClick={() => erase.mutate(undefined)}
        >
          Delete it in a day
        </button>
      </Sheet>
    </section>
  );
}
