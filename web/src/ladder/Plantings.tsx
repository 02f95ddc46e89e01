import type { Schemas } from "../contract/client";
import { longDay } from "../data/words";

/** One skill that is planted: the piece, the date, the steps left, and what would mend it. */
export function PlantingNote({ planting: p }: { planting: Schemas["Planting"] }) {
  return (
    <section aria-label={p.name}>
      <h2>{p.name}</h2>
      <p className="mt-1">
        {p.done} of {p.of} steps done;{" "}
        {p.late > 0 ? (
          <strong className="text-cliff">
            {p.late} {p.late === 1 ? "lesson" : "lessons"} short of it
          </strong>
        ) : p.slack === 0 ? (
          "just in time"
        ) : (
          `${p.slack} ${p.slack === 1 ? "lesson" : "lessons"} in hand`
        )}
        .
      </p>
      <ol className="mt-3">
        {p.steps.map((s) => (
          <li key={s.step} className="border-t border-line/60 py-1.5">
            <p className="fine figures">
              step {s.step} · {longDay(s.day)}
              {s.due && <span className="text-cliff"> · in time by {longDay(s.due)}</span>}
            </p>
            <p>{s.text}</p>
          </li>
        ))}
      </ol>
      <details className="mt-2" open>
        <summary className="fine min-h-touch content-center">Why now?</summary>
        <p>{p.why}</p>
      </details>
      {p.mends.length > 0 && (
        <>
          <h3 className="mt-3">What would mend it</h3>
          <ul className="list-disc pl-5">
            {p.mends.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** All skills that are planted, most urgent first, to choose one. */
export function PlantingList(props: {
  list: Schemas["Planting"][];
  picked?: string;
  onPick: (skill: string) => void;
}) {
  if (props.list.length === 0)
    return <p>Nothing has to be prepared for what is ahead: all of it is known or being learned.</p>;
  return (
    <ul aria-label="To prepare">
      {props.list.map((p) => (
        <li key={p.skill}>
          <button
            type="button"
            aria-pressed={p.skill === props.picked}
            onClick={() => props.onPick(p.skill)}
            className="flex min-h-touch w-full items-center justify-between gap-3 rounded px-2 text-left hover:bg-fold aria-pressed:bg-fold"
          >
            <span>{p.name}</span>
            <span className={`figures fine shrink-0 ${p.late > 0 ? "font-semibold text-cliff" : ""}`}>
              {p.late > 0 ? `${p.late} ${p.late === 1 ? "lesson" : "lessons"} short` : `${p.slack} in hand`}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}
