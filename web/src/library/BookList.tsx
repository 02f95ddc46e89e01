import type { Schemas } from "../contract/client";

type Brief = Schemas["LibraryView"]["books"][number];

/** The books of an instrument, each with its leaps in small; one can be laid beside the one that is open. */
export function BookList(props: {
  books: Brief[];
  picked?: string;
  beside?: string;
  onPick: (id: string) => void;
  onBeside: (id: string) => void;
}) {
  return (
    <ul aria-label="Books">
      {props.books.map((b) => (
        <li key={b.id} className="border-t border-line first:border-0">
          <button
            type="button"
            aria-pressed={b.id === props.picked}
            onClick={() => props.onPick(b.id)}
            className="w-full rounded px-2 py-2 text-left hover:bg-fold aria-pressed:bg-fold"
          >
            <span className="font-head text-lg font-semibold">{b.title}</span>
            <Leaps leaps={b.leaps} />
            <span className="fine">
              {b.materials} pieces{b.units.length > 0 && ` · ${b.units.join(", ")}`}
            </span>
          </button>
          {b.id !== props.picked && (
            <button
              type="button"
              className="quiet"
              aria-pressed={b.id === props.beside}
              onClick={() => props.onBeside(b.id)}
            >
              Lay it beside
            </button>
          )}
          <p className="fine px-2 pb-2">
            <a className="underline" href={`/api/library/export?format=csv&source=${b.id}`} download>
              Download spreadsheet
            </a>{" "}
            ·{" "}
            <a className="underline" href={`/api/library/export?format=json&source=${b.id}`} download>
              Download file
            </a>
          </p>
        </li>
      ))}
    </ul>
  );
}

/** The leaps of a book in small; the drawing says only the shape. */
function Leaps({ leaps }: { leaps: number[] }) {
  const most = Math.max(1, ...leaps);
  const step = 240 / Math.max(1, leaps.length);
  return (
    <svg viewBox="0 0 240 30" className="my-1 block h-7 w-full" preserveAspectRatio="none" aria-hidden="true">
      {leaps.map((l, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: places in a book
          key={i}
          x={i * step}
          width={Math.max(1, step - 1)}
          y={30 - (30 * l) / most}
          height={Math.max(0.5, (30 * l) / most)}
          fill="var(--color-working)"
        />
      ))}
    </svg>
  );
}
