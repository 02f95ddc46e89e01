import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

/** What was recorded today, latest first; each line can be taken back, and what was taken back comes again. */
export function LessonLog({ lesson, append }: { lesson: Schemas["Lesson"]; append: Append }) {
  // A lesson that was kept by an earlier version has none.
  const taken = lesson.taken ?? [];
  if (lesson.log.length + taken.length === 0) return null;
  return (
    <section aria-label="Recorded today" className="mt-6 border-t border-line pt-3">
      <h2 className="text-lg">Recorded today</h2>
      <ol reversed className="mt-1">
        {[...lesson.log].reverse().map((line) => (
          <li key={line.id} className="flex items-center gap-3 border-b border-line/60">
            <span className="figures fine w-12">{clock.format(new Date(line.at))}</span>
            <span className="min-w-0 flex-1">{line.text}</span>
            <button
              type="button"
              className="quiet shrink-0"
              disabled={append.isPending}
              aria-label={`Take back: ${line.text}`}
              onClick={() => append.mutate([entry("correction", { corrects: line.id })])}
            >
              Take back
            </button>
          </li>
        ))}
      </ol>
      {taken.length > 0 && (
        <ul className="mt-2" aria-label="Taken back">
          {taken.slice(0, 5).map((line) => (
            <li key={line.id} className="flex items-center gap-3 text-soft">
              <span className="w-12" />
              <span className="min-w-0 flex-1 line-through">{line.text}</span>
              <button
                type="button"
                className="quiet shrink-0"
                disabled={append.isPending}
                aria-label={`Put back: ${line.text}`}
                onClick={() => append.mutate([entry("correction", { corrects: line.id })])}
              >
                Put back
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
