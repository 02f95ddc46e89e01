import { useQuery } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import type { Schemas } from "../contract/client";
import { useWeek } from "../data/home";
import { lessonQuery, planQuery } from "../data/lesson";
import { useLessonAppend } from "../data/useLessonAppend";
import { firstName, longDay, minutes, weekdayOf } from "../data/words";
import { NextRung } from "../ladder/NextRung";
import { withPending } from "../lesson/pending";
import { Sending } from "../lesson/Sending";
import { LayerMark } from "../parts/LayerMark";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { practise } from "../week/hand";
import { kindNames, layerOf } from "../week/kinds";
import { PublishButton, PublishChanged, PublishState, WouldSend } from "../week/Publish";

/** The end of a lesson: what was done, what moves on, and the week that is proposed. */
export function Close() {
  const { ladder = "" } = useParams();
  const lesson = useQuery(lessonQuery(ladder));
  const plan = useQuery(planQuery(ladder));
  const { waiting } = useLessonAppend(ladder);
  if (lesson.isPending) return <Waiting />;
  if (lesson.error) return <Problem error={lesson.error} again={() => lesson.refetch()} />;
  const l = withPending(
    lesson.data,
    waiting.filter((w) => !w.refused).map((w) => w.entry),
  );
  const cleared = l.pieces.filter((p) => p.state !== "working");
  const name = firstName(l.student.name);
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of={`${l.student.name}, end of the lesson`} />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <p className="fine">{l.student.name} · end of the lesson</p>
          <h1 className="text-[1.6rem]">{summary(l, cleared.length)}</h1>
        </div>
        <Link to={`/lesson/${ladder}`} className="press">
          Back to the lesson
        </Link>
      </div>
      <Sending waiting={waiting} />
      <div className="mt-4 grid gap-8 lg:grid-cols-[1fr_1.6fr]">
        <div className="space-y-6">
          <section aria-label="What was done">
            <h2>What was done</h2>
            {l.log.length === 0 ? (
              <p className="fine">Nothing was noted in this lesson.</p>
            ) : (
              <ol className="mt-1">
                {l.log.map((e) => (
                  <li key={e.id} className="border-b border-line/60 py-1 leading-tight">
                    {e.text}
                  </li>
                ))}
              </ol>
            )}
          </section>
          <section aria-label="What is next">
            <h2>What is next</h2>
            {cleared.length === 0 && (
              <p>
                {l.pieces.length === 0
                  ? "Nothing is in work."
                  : `${l.pieces.map((p) => `“${p.title}”`).join(" and ")} ${l.pieces.length > 1 ? "go" : "goes"} on at home.`}
              </p>
            )}
            {cleared.map((p) => (
              <div key={p.material} className="mt-1">
                <p className="text-good">“{p.title}” is cleared.</p>
                <NextRung ladder={ladder} strand={p.strand} />
              </div>
            ))}
            {plan.data?.waits && <p className="fine mt-2">Left for next week: {plan.data.waits}.</p>}
          </section>
        </div>
        <Proposed ladder={ladder} name={name} />
      </div>
    </div>
  );
}

function summary(l: Schemas["Lesson"], cleared: number): string {
  const marks = l.log.filter((e) => e.kind === "mark").length;
  const heard = l.log.filter((e) => e.kind === "hearing").length;
  const parts = [
    cleared > 0 && `${cleared} cleared`,
    marks > 0 && `${marks} ${marks === 1 ? "mark" : "marks"}`,
    heard > 0 && `${heard} learned ${heard === 1 ? "piece" : "pieces"} heard`,
  ].filter(Boolean);
  return parts.length > 0 ? `${parts.join(", ")}; now the week at home.` : "Now the week at home.";
}

/** The week as it is proposed: days can be taken away, then it is published. */
function Proposed({ ladder, name }: { ladder: string; name: string }) {
  const { week, w, change, publish, changed, publishAsShown, showNew, busy, error } = useWeek(ladder);
  if (week.isPending) return <Waiting />;
  if (week.error) return <Problem error={week.error} again={() => week.refetch()} />;
  if (!w) return null;
  return (
    <section aria-label="The week at home" className="rounded-xl border border-line bg-sheet p-4 sm:p-5">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <div className="min-w-0 flex-1">
          <p className="fine">from {longDay(w.start)}</p>
          <h2 className="leading-tight">{w.sentence}</h2>
        </div>
        <PublishButton week={w} busy={busy} publish={publish} />
      </div>
      <PublishState week={w} />
      <WouldSend week={w} />
      <PublishChanged changed={changed} busy={busy} showNew={showNew} asShown={publishAsShown} />
      <Refused error={error} />
      <ol className="mt-3" aria-label="Days">
        {w.days.map((d) => (
          <li key={d.date} className="flex gap-3 border-t border-line/60 py-1.5">
            <button
              type="button"
              aria-pressed={!d.rest}
              disabled={busy}
              onClick={() => change(practise(w.hand, d.date, d.rest))}
              className="min-h-touch w-20 shrink-0 rounded border-2 border-line aria-pressed:border-working aria-pressed:bg-reach"
            >
              {weekdayOf(d.date).slice(0, 3)}
              <span className="fine figures block leading-none">
                {d.rest ? "rest" : `${minutes(d.minutes)} min`}
              </span>
            </button>
            <p className="min-w-0 flex-1 self-center leading-snug">
              {d.rest
                ? `${name} rests.`
                : d.items.map((i, n) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: steps of a day in their order
                    <span key={n} className="mr-3 inline-flex items-baseline gap-1">
                      <LayerMark layer={layerOf(i.kind)} size={11} />
                      <span>
                        <span className="fine">{kindNames[i.kind].toLowerCase()}</span> {i.title}
                        {i.where && i.where !== "the whole piece" && <span className="fine"> {i.where}</span>}
                        {i.hand && <strong className="text-[0.85em]"> {i.hand}</strong>}
                      </span>
                    </span>
                  ))}
            </p>
          </li>
        ))}
      </ol>
      {w.notYet.length > 0 && (
        <div className="mt-3 border-l-[6px] border-double border-cliff pl-3">
          <h3>Not yet</h3>
          <ul>
            {w.notYet.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        </div>
      )}
      <p className="mt-3">
        <Link to={`/week/${ladder}`} className="quiet -ml-2">
          Edit the week
        </Link>
      </p>
    </section>
  );
}
