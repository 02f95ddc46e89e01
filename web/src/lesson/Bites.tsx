import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { LayerMark } from "../parts/LayerMark";
import { Why } from "../parts/Why";

/** Bites that plant what a later piece will need, so small that the student hardly notices. */
export function Bites(props: { lesson: Schemas["Lesson"]; append: Append }) {
  const { lesson, append } = props;
  if (lesson.bites.length === 0) return null;
  return (
    <section aria-label="Prepare" className="mt-6 border-t border-line pt-3">
      <h2 className="text-lg">Prepare</h2>
      <ul>
        {lesson.bites.map((b) => (
          <li
            key={b.skill}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line/60 py-1.5"
          >
            <LayerMark layer="preview" />
            <span className="min-w-48 flex-1">
              <span className="font-semibold">{b.text}</span>
              <span className="fine block">
                step {b.step} of {b.of} towards “{b.name}”, which “{b.for}” will ask for
                {b.exercise && (
                  <Link
                    to={`/technique?${new URLSearchParams({ ladder: lesson.student.ladder, exercise: b.exercise.id })}`}
                    className="block underline underline-offset-4"
                  >
                    {b.exercise.name}
                  </Link>
                )}
                <Why label={`Why is ${b.name} due now?`} shown="why?">
                  <p>{b.why}</p>
                </Why>
              </span>
            </span>
            <button
              type="button"
              className="press border-line"
              disabled={append.isPending}
              onClick={() =>
                append.mutate([entry("stepDone", { skill: b.skill, step: b.step, text: b.text })])
              }
            >
              Done
              <span className="sr-only">: {b.text}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
