import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { ratingNames, shortDate } from "../data/words";

const ratings = ratingNames.map((says, i) => ({ rating: i + 1, says }));

/** Learned pieces to hear, the one most faded first; one touch rates a hearing. */
export function Reviews(props: { lesson: Schemas["Lesson"]; append: Append }) {
  const { lesson, append } = props;
  if (lesson.reviews.length === 0) return null;
  return (
    <section aria-label="Review" className="mt-6 border-t border-line pt-3">
      <h2 className="text-lg">Hear again</h2>
      <ul>
        {lesson.reviews.map((r) => (
          <li
            key={r.material}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line/60 py-1.5"
          >
            <span className="min-w-48 flex-1">
              <span className="font-semibold">{r.title}</span>
              <span className="fine block">
                {r.heardToday
                  ? `heard today${r.rating ? `: ${ratings[r.rating - 1]?.says}` : ""}`
                  : r.lastPlayed
                    ? `${Math.round(100 * (r.recall ?? 0))} % sure to go (an estimate); last played ${shortDate(r.lastPlayed)}`
                    : "not played since"}
              </span>
            </span>
            {!r.heardToday && (
              <span className="flex flex-wrap gap-1.5">
                {ratings.map(({ rating, says }) => (
                  <button
                    key={rating}
                    type="button"
                    className="press border-line px-3"
                    disabled={append.isPending}
                    onClick={() => append.mutate([entry("hearing", { material: r.material, rating })])}
                  >
                    {says}
                    <span className="sr-only">: {r.title}</span>
                  </button>
                ))}
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
