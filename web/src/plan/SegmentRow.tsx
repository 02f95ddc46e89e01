import type { Schemas } from "../contract/client";
import { SegmentMark } from "./SegmentMark";

/** One segment of the plan: when, what, why; opened it can be stretched, pinned, moved or left out. */
export function SegmentRow(props: {
  segment: Schemas["PlanSegment"];
  start: number;
  open: boolean;
  busy: boolean;
  onOpen: () => void;
  onMinutes: (minutes: number) => void;
  onPin: (on: boolean) => void;
  onMove: (by: number) => void;
  onDrop: () => void;
}) {
  const { segment: s, open, busy } = props;
  const must = s.kind === "opening" || s.kind === "closing";
  return (
    <li className={`border-t border-line ${open ? "bg-sheet" : ""}`}>
      <button
        type="button"
        aria-expanded={open}
        onClick={props.onOpen}
        className="flex min-h-touch w-full items-center gap-3 px-2 py-1.5 text-left hover:bg-fold"
      >
        <span className="figures fine w-8 shrink-0 text-right">{props.start}′</span>
        <SegmentMark layer={s.layer} />
        <span className="min-w-0 flex-1 leading-tight">
          <strong>{s.title}</strong>
          {s.pinned && <span className="fine"> · pinned</span>}
          <span className="fine block">{s.why}</span>
        </span>
        <span className="figures shrink-0 font-semibold">{s.minutes} min</span>
      </button>
      {open && (
        <div className="px-3 pb-3 sm:pl-14">
          {s.words.length > 0 && (
            <ul className="list-disc pl-5">
              {s.words.map((w) => (
                <li key={w}>{w}</li>
              ))}
            </ul>
          )}
          <Questions list={s.questions} />
          <fieldset className="m-0 mt-2 flex flex-wrap items-center gap-2 border-0 p-0" disabled={busy}>
            <legend className="sr-only">Change {s.title} by hand</legend>
            <span className="inline-flex items-center">
              <button
                type="button"
                className="press w-11 px-0"
                aria-label={`One minute less for ${s.title}`}
                disabled={s.minutes <= s.least}
                onClick={() => props.onMinutes(s.minutes - 1)}
              >
                −
              </button>
              <span className="figures w-14 text-center">{s.minutes} min</span>
              <button
                type="button"
                className="press w-11 px-0"
                aria-label={`One minute more for ${s.title}`}
                disabled={s.minutes >= s.most}
                onClick={() => props.onMinutes(s.minutes + 1)}
              >
                +
              </button>
            </span>
            {!must && (
              <>
                <button
                  type="button"
                  className="press"
                  aria-pressed={s.pinned}
                  onClick={() => props.onPin(!s.pinned)}
                >
                  {s.pinned ? "Unpin" : "Pin"}
                </button>
                <button type="button" className="press" onClick={() => props.onMove(-1)}>
                  Earlier
                </button>
                <button type="button" className="press" onClick={() => props.onMove(1)}>
                  Later
                </button>
                <button type="button" className="quiet" onClick={props.onDrop}>
                  Leave it out
                </button>
              </>
            )}
          </fieldset>
          <p className="fine mt-1">
            Useful from {s.least} to {s.most} minutes, usually {s.usual}.
          </p>
        </div>
      )}
    </li>
  );
}

/** What to ask before it is played; the answers stay covered until they are wanted. */
export function Questions({ list }: { list: Schemas["PlanSegment"]["questions"] }) {
  if (list.length === 0) return null;
  return (
    <div className="mt-2">
      <p className="fine">Ask before it is played; the student answers first:</p>
      <ul>
        {list.map((q) => (
          <li key={q.ask}>
            <details>
              <summary className="min-h-touch content-center">{q.ask}</summary>
              <p className="pb-1 pl-5">{q.answer}</p>
            </details>
          </li>
        ))}
      </ul>
    </div>
  );
}
