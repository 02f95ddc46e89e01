import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import { useRemove } from "../data/ladder";
import type { Append } from "../data/useLessonAppend";
import { Refused } from "../parts/Problem";

/** Exercises that stand on the ladder and were not begun: begun from here, or taken off again. */
export function AheadExercises(props: {
  technique: Schemas["Technique"];
  open: (exercise: string) => void;
  append: Append;
}) {
  const { technique: t, append } = props;
  const remove = useRemove(t.ladder);
  if (t.ahead.length === 0) return null;
  return (
    <section aria-label="Exercises ahead">
      <h2 className="text-lg">Ahead on the ladder</h2>
      <Refused error={remove.error} />
      <ul className="mt-1">
        {t.ahead.map((a) => (
          <li key={a.material} className="mb-2 border-l-4 border-ahead pl-3">
            <button
              type="button"
              className="block text-left leading-tight"
              onClick={() => props.open(a.exercise)}
            >
              <strong>{a.title}</strong>
              <span className="block">{a.step}</span>
            </button>
            <button
              type="button"
              className="quiet"
              onClick={() => {
                append.mutate([entry("assigned", { material: a.material })]);
                props.open(a.exercise);
              }}
            >
              begin<span className="sr-only"> {a.title}</span>
            </button>
            <button type="button" className="quiet" onClick={() => remove.mutate(a.material)}>
              take it off<span className="sr-only">: {a.title}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
