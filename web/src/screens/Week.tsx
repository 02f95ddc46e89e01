import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { body, client, type Schemas } from "../contract/client";
import { weekQuery } from "../data/queries";
import { firstName, longDay, minutes, weekdayOf } from "../data/words";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Why } from "../parts/Why";
import { paperSize } from "../week/paperSize";
import { WeekDay } from "../week/WeekDay";

/** The week of practice as a staircase, a day wide each; it prints on one page. */
export function Week() {
  const { ladder = "" } = useParams();
  const week = useQuery(weekQuery(ladder));
  if (week.isPending) return <Waiting />;
  if (week.error) return <Problem error={week.error} again={() => week.refetch()} />;
  const w = week.data;
  const practised = w.days.filter((d) => !d.rest).length;
  let step = 0;
  return (
    <div
      className="mx-auto max-w-[100rem] px-4 py-4 sm:px-6 print:max-w-none print:p-0 print:[zoom:var(--paper)]"
      style={{ "--paper": paperSize(w) } as React.CSSProperties}
    >
      <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <div className="min-w-72 flex-1">
          <p className="fine">
            {w.student.name} · {w.student.instrument} · from {longDay(w.start)} · {w.studio}, {w.teacher}
          </p>
          <h1 className="text-[1.6rem]">{w.sentence}</h1>
          <div className="mt-1 flex flex-wrap items-center gap-x-3">
            <p>{w.dose}</p>
            <span className="no-print">
              <Why label="How the minutes are reckoned" shown="The minutes">
                <p>{w.estimate}</p>
              </Why>
              {w.reviews.length > 0 && (
                <Why
                  label="Why these learned pieces"
                  shown={`Review ${Math.round(100 * w.review.share)} %, aim ${Math.round(100 * w.review.aim)} %`}
                >
                  <p>
                    Picked for the minutes kept for review: what is nearest to being lost, and what refines
                    the working pieces. The chances are estimates of a memory model.
                  </p>
                  <ul className="mt-2 space-y-1">
                    {w.reviews.map((r) => (
                      <li key={r.material}>
                        <strong>{r.title}</strong>: {r.why}
                      </li>
                    ))}
                  </ul>
                </Why>
              )}
            </span>
          </div>
        </div>
        <div className="no-print flex flex-wrap gap-2">
          <Link to={`/lesson/${ladder}`} className="press">
            Lesson
          </Link>
          <button type="button" className="press press-main" onClick={() => window.print()}>
            Print the sheet
          </button>
        </div>
      </header>
      <ol
        className="mt-5 grid gap-x-2 gap-y-6 md:grid-cols-7 print:mt-2 print:grid-cols-7 print:gap-x-1.5"
        aria-label="Days"
      >
        {w.days.map((d) => (
          <WeekDay
            key={d.date}
            day={d}
            step={d.rest ? step : ++step}
            steps={practised}
            limit={w.practice.minutes}
          />
        ))}
      </ol>
      <div className="mt-6 grid gap-x-8 gap-y-4 md:grid-cols-3 print:mt-3 print:grid-cols-3">
        <NotYet list={w.notYet} />
        <LeftOut items={w.leftOut} />
        <section>
          <h2 className="text-lg">Take care</h2>
          <p className="fine">{w.caution}</p>
        </section>
      </div>
      <PracticeSettings
        key={w.practice.version}
        ladder={ladder}
        practice={w.practice}
        name={firstName(w.student.name)}
      />
    </div>
  );
}

function NotYet({ list }: { list: string[] }) {
  return (
    <section className="border-l-[6px] border-double border-cliff pl-3">
      <h2 className="text-lg">Not yet</h2>
      {list.length === 0 ? (
        <p className="fine">Nothing is held back this week.</p>
      ) : (
        <ul>
          {list.map((n) => (
            <li key={n}>{n}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

function LeftOut({ items }: { items: Schemas["WeekItem"][] }) {
  return (
    <section>
      <h2 className="text-lg">Did not fit</h2>
      {items.length === 0 ? (
        <p className="fine">Everything fits into the minutes.</p>
      ) : (
        <p>
          {items
            .slice(0, 6)
            .map((i) => `“${i.title}” ${i.where}${i.hand ? `, ${i.hand}` : ""} (${minutes(i.minutes)} min)`)
            .join("; ")}
          {items.length > 6 ? ` and ${items.length - 6} more` : ""}.
        </p>
      )}
    </section>
  );
}

function PracticeSettings(props: { ladder: string; practice: Schemas["Practice"]; name: string }) {
  const [practice, setPractice] = useState(props.practice);
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: (p: Schemas["Practice"]) =>
      body(client.PUT("/ladders/{ladder}/practice", { params: { path: { ladder: props.ladder } }, body: p })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["ladder", props.ladder] }),
  });
  const change = (p: Partial<Schemas["Practice"]>) => {
    const next = { ...practice, ...p };
    setPractice(next);
    save.mutate(next);
  };
  const names = [
    "2026-11-22",
    "2026-11-23",
    "2026-11-24",
    "2026-11-25",
    "2026-11-26",
    "2026-11-27",
    "2026-11-28",
  ].map(weekdayOf);
  return (
    <section className="no-print mt-8 border-t border-line pt-4" aria-label="Practice at home">
      <h2 className="text-lg">Practice at home</h2>
      <div className="mt-2 flex flex-wrap items-center gap-x-6 gap-y-3">
        <fieldset className="flex flex-wrap gap-1" disabled={save.isPending}>
          <legend className="fine">Days on which {props.name} practises</legend>
          {[1, 2, 3, 4, 5, 6, 0].map((d) => (
            <button
              key={d}
              type="button"
              aria-pressed={practice.days[d]}
              className="min-h-touch min-w-touch rounded border-2 border-line px-2 aria-pressed:border-working aria-pressed:bg-reach aria-pressed:font-semibold"
              onClick={() => change({ days: practice.days.map((on, i) => (i === d ? !on : on)) })}
            >
              <span className="sr-only">{names[d]}</span>
              <span aria-hidden="true">{names[d]?.slice(0, 3)}</span>
            </button>
          ))}
        </fieldset>
        <label className="flex flex-col">
          <span className="fine">Minutes a day, at most</span>
          <select
            value={practice.minutes}
            disabled={save.isPending}
            onChange={(e) => change({ minutes: Number(e.target.value) })}
          >
            {[...new Set([5, 10, 15, 20, 25, 30, 40, 50, 60, 90, practice.minutes])]
              .sort((a, b) => a - b)
              .map((m) => (
                <option key={m} value={m}>
                  {m}
                </option>
              ))}
          </select>
        </label>
        <label className="flex min-h-touch items-center gap-2">
          <input
            type="checkbox"
            className="min-h-6 w-6 accent-working"
            checked={practice.handsApart}
            disabled={save.isPending}
            onChange={(e) => change({ handsApart: e.target.checked })}
          />
          Hands apart first: right a week, left a week, then together
        </label>
      </div>
      <Refused error={save.error} />
    </section>
  );
}
