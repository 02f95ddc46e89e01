import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { todayQuery } from "../data/lesson";
import { longDay, weekdayOf } from "../data/words";
import { Problem, Waiting } from "../parts/Problem";
import { SignMark } from "../parts/SignMark";
import { PlanDay } from "../plan/PlanDay";

/** The day's lessons on a time line, each with what is due in it. */
export function Today() {
  const [params] = useSearchParams();
  const today = useQuery(todayQuery(params.get("day") ?? undefined));
  if (today.isPending) return <Waiting />;
  if (today.error) return <Problem error={today.error} again={() => today.refetch()} />;
  const t = today.data;
  return (
    <div className="mx-auto max-w-5xl px-4 py-6 sm:px-8">
      <p className="fine">{longDay(t.day)}</p>
      <h1 className="mt-1">{t.sentence}</h1>
      <WeekStrip today={t} />
      {t.lessons.length === 0 ? (
        <p className="mt-10 max-w-md">
          A free day. Pick another day above to look ahead, or open a student from the list at the top.
        </p>
      ) : (
        <>
          <div className="mt-4">
            <PlanDay key={t.day} day={t.day} />
          </div>
          <ol className="mt-6 border-l-4 border-line">
            {t.lessons.map((l, i) => (
              <LessonLine key={l.student.ladder} lesson={l} day={t.day} gap={gapBefore(t.lessons, i)} />
            ))}
          </ol>
        </>
      )}
    </div>
  );
}

function WeekStrip({ today }: { today: Schemas["Today"] }) {
  return (
    <nav aria-label="Days of the week" className="mt-4 flex flex-wrap gap-x-1">
      {today.week.map((d) => (
        <Link
          key={d.day}
          to={`/?day=${d.day}`}
          aria-current={d.day === today.day ? "date" : undefined}
          className="flex min-h-touch min-w-touch flex-col items-center justify-center rounded px-2 hover:bg-fold aria-[current]:bg-fold aria-[current]:font-semibold"
        >
          <span className="text-fine">{weekdayOf(d.day).slice(0, 3)}</span>
          <span aria-hidden="true" className="flex h-2 gap-0.5">
            {Array.from({ length: d.lessons }, (_, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: strokes that only count
              <i key={i} className="h-2 w-1 rounded-full bg-working" />
            ))}
          </span>
          <span className="sr-only">{d.lessons} lessons</span>
        </Link>
      ))}
    </nav>
  );
}

const clock = (hhmm: string) => {
  const [h, m] = hhmm.split(":").map(Number);
  return (h ?? 0) * 60 + (m ?? 0);
};

/** Free minutes before a lesson, which push it down the line a little. */
function gapBefore(lessons: Schemas["TodayLesson"][], i: number): number {
  const here = lessons[i];
  const before = lessons[i - 1];
  if (!here || !before) return 0;
  return Math.max(0, clock(here.student.startsAt) - clock(before.student.startsAt) - before.student.minutes);
}

function LessonLine({ lesson, day, gap }: { lesson: Schemas["TodayLesson"]; day: string; gap: number }) {
  const s = lesson.student;
  return (
    <li className="relative pl-6 sm:pl-10">
      {gap > 0 && (
        <p
          className="fine flex items-center border-b border-line py-1"
          style={{ minHeight: Math.min(56, 20 + gap) }}
        >
          {gap}-minute break
        </p>
      )}
      <div className="relative">
        <i
          aria-hidden="true"
          className={`absolute -left-[35px] top-7 sm:-left-[51px] h-[18px] w-[18px] rounded-full border-4 border-working ${lesson.given ? "bg-working" : "bg-paper"}`}
        />
        <article className="flex flex-wrap items-start gap-x-8 gap-y-2 border-b border-line py-5">
          <div className="w-60 shrink-0">
            <p className="figures text-soft">
              {s.startsAt} · {s.minutes} min
            </p>
            <h2 className="leading-tight">
              <Link to={`/ladder/${s.ladder}`} className="hover:underline">
                {s.name}
              </Link>
            </h2>
            <p className="fine">
              {s.instrument}, {s.age} years{lesson.given ? " · given" : ""}
            </p>
          </div>
          <div className="min-w-64 flex-1">
            <ul>
              {lesson.working.map((w) => (
                <li key={w.material} className="flex items-center gap-3 py-0.5">
                  <Points full={w.full} of={w.points} />
                  <span>
                    <strong>{w.title}</strong>
                  </span>
                </li>
              ))}
            </ul>
            {lesson.home && (
              <p className="mt-1 border-l-4 border-review pl-2 leading-tight">
                <span className="fine">From home:</span> {lesson.home.words}
              </p>
            )}
            {lesson.signs.length > 0 && (
              <ul className="mt-1">
                {lesson.signs.map((sign) => (
                  <li
                    key={sign.text}
                    className={`flex items-start gap-2 ${sign.kind === "run" ? "text-working" : sign.kind === "stuck" ? "text-cliff" : "text-soft"}`}
                  >
                    <SignMark kind={sign.kind} />
                    {sign.kind === "bench" ? (
                      <Link className="underline underline-offset-4" to={`/setup/${s.ladder}`}>
                        {sign.text}
                      </Link>
                    ) : (
                      sign.text
                    )}
                  </li>
                ))}
              </ul>
            )}
          </div>
          <div className="flex gap-2">
            <Link to={`/lesson/${s.ladder}`} className={`press ${lesson.given ? "" : "press-main"}`}>
              {lesson.given ? "Open again" : "Open the lesson"}
            </Link>
            <Link to={`/plan/${s.ladder}?day=${day}`} className="press">
              Plan
            </Link>
            <Link to={`/week/${s.ladder}`} className="press">
              Week
            </Link>
          </div>
        </article>
      </div>
    </li>
  );
}

/** How many focus points have their full mark: five of seven, as strokes. */
function Points({ full, of }: { full: number; of: number }) {
  return (
    <span className="flex shrink-0 gap-1" role="img" aria-label={`${full} of ${of} points secure`}>
      {Array.from({ length: of }, (_, i) => (
        <i
          // biome-ignore lint/suspicious/noArrayIndexKey: strokes that only count
          key={i}
          className={`h-4 w-3 rounded-[3px] border-[1.5px] border-working ${i < full ? "bg-working" : ""}`}
        />
      ))}
    </span>
  );
}
