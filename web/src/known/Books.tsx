import { useState } from "react";
import type { Schemas } from "../contract/client";
import { When } from "./When";
import type { Rough } from "./when";

/** Up to which piece of a book, by one touch. */
export type UpTo = Schemas["NewKnown"]["upTo"][number];

export function Books(props: {
  books: Schemas["KnownBook"][];
  upTo: UpTo[];
  onChange: (list: UpTo[]) => void;
  when: Rough;
}) {
  const [open, setOpen] = useState<string>();
  const of = (book: string) => props.upTo.find((u) => u.book === book);
  const set = (u: UpTo) => props.onChange([...props.upTo.filter((x) => x.book !== u.book), u]);
  if (props.books.length === 0) return null;
  return (
    <section aria-label="Books">
      <h2 className="text-lg">Up to here in a book</h2>
      <ul>
        {props.books.map((b) => {
          const here = of(b.id);
          const at = b.pieces.findIndex((p) => p.id === here?.last);
          const shown = open === b.id || here !== undefined || props.books.length === 1;
          return (
            <li key={b.id} className="border-t border-line/60 py-2">
              <div className="flex flex-wrap items-center gap-3">
                <button type="button" className="quiet" aria-expanded={shown} onClick={() => setOpen(b.id)}>
                  {b.title}
                </button>
                {here && (
                  <>
                    <span className="fine">
                      {at + 1} of {b.pieces.length}
                    </span>
                    <When
                      value={here.when}
                      onChange={(when) => set({ ...here, when })}
                      label={`When: ${b.title}`}
                    />
                    <label className="flex min-h-touch items-center gap-2">
                      <input
                        type="checkbox"
                        className="size-5 min-h-0 accent-working"
                        checked={here.ladder ?? false}
                        onChange={(e) => set({ ...here, ladder: e.target.checked })}
                      />
                      the rest onto the ladder
                    </label>
                    <button
                      type="button"
                      className="quiet"
                      onClick={() => props.onChange(props.upTo.filter((x) => x.book !== b.id))}
                    >
                      Clear
                    </button>
                  </>
                )}
              </div>
              {shown && (
                <ol className="flex flex-wrap gap-1" aria-label={b.title}>
                  {b.pieces.map((p, i) => (
                    <li key={p.id}>
                      <button
                        type="button"
                        aria-pressed={i <= at}
                        onClick={() =>
                          set({ book: b.id, last: p.id, when: here?.when ?? props.when, ladder: true })
                        }
                        className="min-h-touch rounded border border-line px-2 text-[0.9rem] hover:bg-fold aria-pressed:border-review aria-pressed:bg-review aria-pressed:text-on-working"
                      >
                        {p.name}
                        {p.known && " ✓"}
                      </button>
                    </li>
                  ))}
                </ol>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
