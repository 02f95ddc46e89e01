import type { Schemas } from "../contract/client";

/** What a new order would do, before it is kept: what becomes worse first. */
export function Consequences(props: {
  changes: Schemas["Consequence"][];
  busy: boolean;
  keep: () => void;
  undo: () => void;
}) {
  return (
    <section
      aria-label="What this would change"
      className="border-b-2 border-preview bg-sheet px-4 py-3 sm:px-6"
      aria-live="polite"
    >
      <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
        <div className="min-w-0 max-w-3xl flex-1">
          <p className="font-semibold">Only tried so far:</p>
          <ul>
            {props.changes.map((c) => (
              <li key={c.text} className="flex gap-2">
                <Sign change={c} />
                <span className={c.worse ? "text-cliff" : ""}>{c.text}</span>
              </li>
            ))}
            {props.changes.length === 0 && (
              <li>No leap, preview, date or target changes by more than can be told.</li>
            )}
          </ul>
        </div>
        <div className="flex gap-2">
          <button type="button" className="press" disabled={props.busy} onClick={props.undo}>
            Undo
          </button>
          <button type="button" className="press press-main" disabled={props.busy} onClick={props.keep}>
            Keep it
          </button>
        </div>
      </div>
    </section>
  );
}

function Sign({ change }: { change: Schemas["Consequence"] }) {
  const { worse } = change;
  const date = change.kind === "date";
  return (
    <svg
      viewBox="0 0 20 20"
      width="14"
      height="14"
      role="img"
      className={`mt-1.5 shrink-0 ${worse ? "text-cliff" : date ? "text-soft" : "text-good"}`}
    >
      <title>{worse ? "worse" : date ? "moves" : "better"}</title>
      <path
        d={worse ? "M10 3L18 17H2z" : date ? "M3 10h12M11 5l5 5-5 5" : "M3 10.5l5 5L17.5 4.5"}
        fill={worse ? "currentColor" : "none"}
        stroke="currentColor"
        strokeWidth={worse ? 0 : date ? 2.4 : 3}
      />
    </svg>
  );
}
