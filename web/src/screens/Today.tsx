import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { todayQuery, useTold } from "../data/lesson";
import { addDays, minutesOf } from "../data/time";
import { longDay, weekdayOf } from "../data/words";
import { Begin } from "../first/Begin";
import { Problem, Waiting } from "../parts/Problem";
import { SignMark } from "../parts/SignMark";
import { Title } from "../parts/Title";
import { PlanDay } from "../plan/PlanDay";

/** Which figures a new version moved, and why, until it was read. */
function Moved({ of }: { of: Schemas["Today"]["moved"] }) {
  const told = useTold();
  const last = of[of.length - 1];
  if (!last) return null;
  return (
    <section aria-label="Since the last update" className="mt-3 border-l-4 border-preview pl-4">
      {of.map((m) => (
        <p key={m.number}>{m.says}</p>
      ))}
      <button
        type="button"
        className="quiet -ml-2.5"
        disabled={told.isPending}
        onClick={() => told.mutate(last.number)}
      >
        I have read it
      </button>
    </section>
  );
}

/** The day's lessons on a time line, each with what is due in it. */
export function Today() {
  const [params] = useSearchParams();
  const today = useQuery(todayQuery(params.get("day") ?? undefined));
  if (today.isPending) return <Waiting />;
  if (today.error) return <Problem error={today.error} again={() => today.refetch()} />;
  const t = today.data;
  return (
    <div className="mx-auto max-w-5xl px-4 py-6 sm:px-8">
      <Title of={t.day === t.today ? "Today" : longDay(t.day)} />
      <p className={t.day === t.today ? "fine" : "border-l-4 border-preview pl-3"}>
        {longDay(t.day)}
        {t.day < t.today && ": a day that was. What you enter in a lesson here has this date."}
        {t.day > t.today && ": a day ahead, to plan. Lessons are given on their day."}
        {t.holidays.length > 0 && <strong className="text-review"> · {t.holidays.join(", ")}</strong>}
      </p>
      <h1 className="mt-1">{t.sentence}</h1>
      {t.asked > 0 && (
        <p className="mt-1">
          <Link to="/messages" className="underline underline-offset-4">
            {t.asked === 1 ? "One note from home waits" : `${t.asked} notes from home wait`} for an answer
          </Link>
        </p>
      )}
      {t.notEntered > 0 && (
        <p className="mt-1">
          <Link to="/not-entered" className="text-cliff underline underline-offset-4">
            {t.notEntered === 1
              ? "One lesson is not entered yet"
              : `${t.notEntered} lessons are not entered yet`}
          </Link>
        </p>
      )}
      <Moved of={t.moved} />
      <WeekStrip today={t} />
      {t.first.length > 0 && t.day === t.today && <Begin steps={t.first} />}
      {t.lessons.length === 0 ? (
        t.first.length === 0 && <Free day={t.day} />
      ) : (
        <>
          {t.day >= t.today && (
            <div className="mt-4">
              <PlanDay key={t.day} day={t.day} today={t.day === t.today} />
            </div>
          )}
          <ol className="mt-6 border-l-4 border-line">
            {t.lessons.map((l, i) => (
              <LessonLine
                key={l.lesson.lesson}
                lesson={l}
                day={t.day}
                today={t.today}
                gap={gapBefore(t.lessons, i)}
              />
            ))}
          </ol>
        </>
      )}
      {t.others.length > 0 && (
        <section aria-label="Not on this day" className="mt-6">
          <h2 className="text-lg">Not on this day</h2>
          <ul>
            {t.others.map((l) => (
              <li key={l.lesson} className="border-t border-line/60 py-1">
                <Link to={`/student/${l.student}`} className="hover:underline">
                  {l.name}
                </Link>{" "}
                <span className="fine">{l.words}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Free({ day }: { day: string }) {
  return (
    <p className="mt-10 max-w-md">
      No lessons on this day. Pick another day above,{" "}
      <Link to={`/calendar?day=${day}`} className="underline underline-offset-4">
        open the calendar
      </Link>
      , or open a student from the list at the top.
    </p>
  );
}

function WeekStrip({ today }: { today: Schemas["Today"] }) {
  const monday = today.week[0]?.day ?? today.day;
  const step = "press min-w-touch border-line px-3";
  return (
    <nav aria-label="Days of the week" className="mt-4 flex flex-wrap items-center gap-x-1 gap-y-1">
      <Link to={`/?day=${addDays(monday, -7)}`} className={step} aria-label="The week before">
        ‹
      </Link>
      {today.week.map((d) => (
        <Link
          key={d.day}
          to={`/?day=${d.day}`}
          aria-current={d.day === today.day ? "date" : undefined}
          className="flex min-h-touch min-w-touch flex-col items-center justify-center rounded px-2 hover:bg-fold aria-[current]:bg-fold aria-[current]:font-semibold"
        >
          <span className="text-fine">
            {weekdayOf(d.day).slice(0, 3)} <span className="figures">{Number(d.day.slice(8))}</span>
          </span>
          <span aria-hidden="true" className="flex h-2 gap-0.5">
            {Array.from({ length: Math.min(12, d.lessons) }, (_, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: strokes that only count
              <i key={i} className="h-2 w-1 rounded-full bg-working" />
            ))}
          </span>
          <span className="sr-only">{d.lessons === 1 ? "1 lesson" : `${d.lessons} lessons`}</span>
        </Link>
      ))}
      <Link to={`/?day=${addDays(monday, 7)}`} className={step} aria-label="The week after">
        ›
      </Link>
      {today.day !== today.today && (
        <Link to="/" className="quiet">
          Back to today
        </Link>
      )}
    </nav>
  );
}

/** Free minutes before a lesson, which push it down the line a little. */
function gapBefore(lessons: Schemas["TodayLesson"][], i: number): number {
  const here = lessons[i];
  const before = lessons[i - 1];
  if (!here || !before) return 0;
  return Math.max(
    0,
    minutesOf(here.lesson.startsAt) - minutesOf(before.lesson.startsAt) - before.lesson.minutes,
  );
}

function LessonLine(props: { lesson: Schemas["TodayLesson"]; day: string; today: string; gap: number }) {
  const { lesson, day, today, gap } = props;
  const s = lesson.student;
  const taught = lesson.lesson.became === "taught";
  const open = lesson.lesson.became === "notEntered";
  const forgotten = open && day < today;
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
          className={`absolute -left-[35px] top-7 sm:-left-[51px] h-[18px] w-[18px] rounded-full border-4 ${forgotten ? "" : "border-working"} ${taught ? "bg-working" : forgotten ? "border-cliff bg-paper" : "bg-paper"}`}
        />
        <article className="flex flex-wrap items-start gap-x-8 gap-y-2 border-b border-line py-5">
          <div className="w-60 shrink-0">
            <p className="figures text-soft">
              {lesson.lesson.startsAt} · {lesson.lesson.minutes} min
            </p>
            <h2 className="leading-tight">
              <Link to={`/ladder/${s.ladder}`} className="hover:underline">
                {s.name}
              </Link>
            </h2>
            <p className="fine">
              {s.instrument}, {s.age} years{taught ? " · given" : ""}
            </p>
            {open && <p className={forgotten ? "font-semibold text-cliff" : "fine"}>Not entered yet</p>}
            {lesson.lesson.became === "missed" && <p className="fine">It did not take place</p>}
            {lesson.lesson.words && <p className="text-fine text-cliff">{lesson.lesson.words}</p>}
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
            <Into lesson={lesson} day={day} today={today} />
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

/** The way into a lesson: today's is given now; one of a day that was is entered under its own date; one ahead is only planned. */
function Into(props: { lesson: Schemas["TodayLesson"]; day: string; today: string }) {
  const { lesson, day, today } = props;
  const given = lesson.lesson.became === "taught";
  const look = `press ${given ? "" : "press-main"}`;
  if (day > today) return null;
  if (day < today)
    return (
      <Link to={`/past/${lesson.student.ladder}?day=${day}`} className={look}>
        {given ? "Read it" : "Enter it"}
      </Link>
    );
  return (
    <Link to={`/lesson/${lesson.student.ladder}`} className={look}>
      {given ? "Open again" : "Open the lesson"}
    </Link>
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
