import type { Schemas } from "../contract/client";

/** Room for as many times as there are as a rule, kept while they are looked for. */
const room = [0, 1, 2, 3, 4, 5, 6, 7];

/** Free times near a lesson. They come late, and nothing under the hand may move when they do. */
export function FreeTimes(props: {
  times?: Schemas["FreeTime"][];
  failed: boolean;
  at: { day: string; startsAt: string };
  onChoose: (t: { day: string; startsAt: string }) => void;
}) {
  const { times, at } = props;
  return (
    <div>
      <p className="fine" aria-live="polite">
        {times !== undefined
          ? times.length > 0
            ? "Free times near it"
            : "No free time is near it"
          : props.failed
            ? "Free times cannot be looked for now"
            : "Looking for free times"}
      </p>
      <ul className="mt-1 grid grid-cols-2 gap-1.5 sm:grid-cols-3">
        {times?.map((t) => (
          <li key={`${t.day} ${t.startsAt}`}>
            <button
              type="button"
              aria-pressed={at.day === t.day && at.startsAt === t.startsAt}
              className="press w-full whitespace-nowrap border-line px-1 text-[0.9rem] aria-pressed:border-ink aria-pressed:bg-fold"
              onClick={() => props.onChoose({ day: t.day, startsAt: t.startsAt })}
            >
              {t.words}
            </button>
          </li>
        ))}
        {room.slice(times?.length ?? 0).map((i) => (
          <li key={i} aria-hidden className="min-h-touch" />
        ))}
      </ul>
    </div>
  );
}
