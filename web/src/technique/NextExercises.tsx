import type { Schemas } from "../contract/client";
import type { Append } from "../data/useLessonAppend";
import { Refused } from "../parts/Problem";
import { useTake } from "./useTake";

/** What comes next on the staircases, each with its reasons. */
export function NextExercises(props: {
  ladder: string;
  proposed: Schemas["NextExercise"][];
  shown?: string;
  open: (exercise: string) => void;
  /** One was begun. */
  begun?: (exercise: string) => void;
  append: Append;
}) {
  const take = useTake(props.ladder, props.append);
  if (props.proposed.length === 0) return null;
  return (
    <section aria-label="Next exercises">
      <h2 className="text-lg">Next on the staircases</h2>
      <Refused error={take.error} />
      <ul className="mt-1">
        {props.proposed.map((p) => (
          <li
            key={p.exercise}
            className={`mb-2 border-l-4 border-dashed py-1 pl-3 ${p.exercise === props.shown ? "border-working" : "border-line"}`}
          >
            <button
              type="button"
              className="block text-left leading-tight"
              onClick={() => props.open(p.exercise)}
            >
              <strong>{p.title}</strong>
              <span className="block">{p.step}</span>
            </button>
            <ul className="fine mt-0.5 leading-tight">
              {p.reasons.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
            <div className="mt-1 flex flex-wrap items-center gap-x-2">
              <button
                type="button"
                className="press border-working"
                disabled={take.isPending}
                onClick={() =>
                  take.mutate(
                    { exercise: p.exercise, begin: true },
                    { onSuccess: () => props.begun?.(p.exercise) },
                  )
                }
              >
                Begin<span className="sr-only"> {p.title}</span>
              </button>
              <button
                type="button"
                className="quiet"
                disabled={take.isPending}
                onClick={() => take.mutate({ exercise: p.exercise, begin: false })}
              >
                save for later<span className="sr-only">: {p.title}</span>
              </button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
