import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../contract/client";
import { useWeek } from "../data/home";
import { useLessonAppend } from "../data/useLessonAppend";
import { firstName, longDay, minutes } from "../data/words";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Why } from "../parts/Why";
import { AfterHome } from "../week/AfterHome";
import { Family } from "../week/Family";
import { ForWeek } from "../week/ForWeek";
import { Gates } from "../week/Gates";
import { practise, touched } from "../week/hand";
import { ItemSheet } from "../week/ItemSheet";
import { PublishButton, PublishChanged, PublishState, WouldSend } from "../week/Publish";
import { Usual } from "../week/Usual";
import { WeekDay } from "../week/WeekDay";

/** The week of practice as a staircase, a day wide each: solved, changed by hand, solved again, published. */
export function Week() {
  const { ladder = "" } = useParams();
  const { week, w, change, publish, changed, publishAsShown, showNew, busy, error } = useWeek(ladder);
  const { append } = useLessonAppend(ladder);
  const [held, hold] = useState<Schemas["WeekItem"]>();
  if (week.isPending) return <Waiting />;
  if (week.error) return <Problem error={week.error} again={() => week.refetch()} />;
  if (!w) return null;
  const practised = w.days.filter((d) => !d.rest).length;
  let step = 0;
  return (
    <div className="mx-auto max-w-[100rem] px-4 py-4 sm:px-6">
      <Title of={`${w.student.name}, week`} />
      <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <div className="min-w-72 flex-1">
          <p className="fine">
            {w.student.name} · {w.student.instrument} · from {longDay(w.start)}
          </p>
          <h1 className="text-[1.6rem]">{w.sentence}</h1>
          <Reasons week={w} />
        </div>
        <div className="no-print flex flex-wrap items-center gap-2">
          <Link to={`/lesson/${ladder}`} className="press">
            Lesson
          </Link>
          <a
            className="press"
            href={`/api/ladders/${ladder}/week/sheet?day=${w.start}`}
            target="_blank"
            rel="noreferrer"
          >
            Sheet as PDF
          </a>
          <PublishButton week={w} busy={busy} publish={publish} />
        </div>
      </header>
      <PublishState week={w} />
      <WouldSend week={w} />
      <PublishChanged changed={changed} busy={busy} showNew={showNew} asShown={publishAsShown} />
      <Refused error={error ?? append.error} />
      <AfterHome week={w} busy={busy} change={change} />
      <ol
        className="mt-3 grid gap-x-3 gap-y-6 sm:grid-cols-2 md:grid-cols-4 lg:grid-cols-7"
        aria-label="Days"
      >
        {w.days.map((d) => (
          <WeekDay
            key={d.date}
            day={d}
            step={d.rest ? step : ++step}
            steps={practised}
            limit={w.minutes}
            busy={busy}
            onDay={(practice) => change(practise(w.hand, d.date, practice))}
            onItem={hold}
          />
        ))}
      </ol>
      <div className="mt-6 grid gap-x-8 gap-y-5 md:grid-cols-3">
        <NotYet list={w.notYet} />
        <LeftOut items={w.leftOut} />
        <section>
          <h2 className="text-lg">Take care</h2>
          <p className="fine">{w.caution}</p>
        </section>
      </div>
      <div className="no-print mt-8 grid gap-x-8 gap-y-6 border-t border-line pt-5 md:grid-cols-2 xl:grid-cols-3">
        <ForWeek key={w.hand.words} week={w} busy={busy} change={change} />
        <Gates week={w} append={append} />
        <Family key={w.family.email} week={w} />
      </div>
      <div className="no-print mt-6 flex flex-wrap items-end justify-between gap-4 border-t border-line pt-4">
        <Usual
          key={w.practice.version}
          ladder={ladder}
          practice={w.practice}
          name={firstName(w.student.name)}
        />
        {touched(w.hand) && (
          <button
            type="button"
            className="quiet"
            disabled={busy}
            onClick={() => change({ version: w.hand.version })}
          >
            Leave the whole week to the program
          </button>
        )}
      </div>
      <ItemSheet item={held} week={w} change={change} onClose={() => hold(undefined)} />
    </div>
  );
}

/** How often, and what stands behind the minutes and the pick. */
function Reasons({ week: w }: { week: Schemas["Week"] }) {
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-3">
      {w.watch && <p className="border-l-4 border-focus pl-3">{w.watch}</p>}
      {w.dose && <p>{w.dose}</p>}
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
              Picked for the minutes kept for review: what is nearest to being lost, and what refines the
              working pieces. The chances are estimates of a memory model.
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
  );
}

function NotYet({ list }: { list: string[] }) {
  return (
    <section className="border-l-[6px] border-double border-cliff pl-3">
      <h2 className="text-lg">Not yet</h2>
      {list.length === 0 ? (
        <p className="fine">No “not yet” this week.</p>
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
