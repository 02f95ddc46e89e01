import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { activityNow, type Moved, meetingQuery, questionNow } from "../data/meeting";
import { useLessonAppend } from "../data/useLessonAppend";
import { Activity, TakeBack } from "../meeting/Activity";
import { Answer } from "../meeting/Answer";
import { Question } from "../meeting/Question";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";

/** The first meeting, and the placement of somebody from elsewhere: one thing at a time, each outcome one touch. */
export function Meeting() {
  const { ladder = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const minutes = Number(params.get("minutes") ?? 30);
  const elsewhere = params.get("show") === "elsewhere";
  const [moved, setMoved] = useState<Moved>();
  const [chosen, setChosen] = useState<string>();
  const meeting = useQuery(meetingQuery(ladder, minutes, moved));
  const { append, waiting } = useLessonAppend(ladder);
  if (meeting.isPending) return <Waiting />;
  if (meeting.error && !meeting.data)
    return <Problem error={meeting.error} again={() => meeting.refetch()} />;
  const m = meeting.data;
  const unsent = waiting.map((w) => w.entry);
  const now = m.activities.map((a) => ({ a, ...activityNow(a, unsent) }));
  const current = now.find((x) => x.a.id === chosen) ?? now.find((x) => x.level > 0);
  const { question, answered } = questionNow(m.placement, unsent);
  const set = (key: string, value: string) => {
    const next = new URLSearchParams(params);
    next.set(key, value);
    setParams(next, { replace: true });
  };
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of={`${m.student.name}, meeting`} />
      <p className="fine">
        <Link to={`/ladder/${ladder}`} className="underline underline-offset-4">
          {m.student.name}
        </Link>
        , {m.student.instrument}
      </p>
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1 className="text-[1.6rem]">{elsewhere ? m.placement.sentence : m.sentence}</h1>
        <fieldset className="m-0 flex gap-2 border-0 p-0">
          <legend className="sr-only">What</legend>
          {[
            { id: "first", name: "First meeting" },
            { id: "elsewhere", name: "From elsewhere" },
          ].map((x) => (
            <button
              key={x.id}
              type="button"
              className="press aria-pressed:bg-ink aria-pressed:text-paper"
              aria-pressed={(x.id === "elsewhere") === elsewhere}
              onClick={() => set("show", x.id)}
            >
              {x.name}
            </button>
          ))}
        </fieldset>
      </div>
      <Refused error={append.error} />
      {elsewhere ? (
        <>
          <div className="mt-4">
            {question ? (
              <Question
                key={`${question.skill} ${m.placement.answered + answered}`}
                question={question}
                tone={m.family}
                append={append}
              />
            ) : (
              answered > 0 && (
                <p className="fine">
                  The answers are kept on this device; the next question comes when they have arrived.
                </p>
              )
            )}
            {m.placement.last && answered === 0 && (
              <p className="fine mt-2">
                Last: {m.placement.last.name}.<TakeBack of={m.placement.last.id} append={append} />
              </p>
            )}
          </div>
          <Answer ladder={ladder} placement={m.placement} moved={moved} move={setMoved} />
        </>
      ) : (
        <div className="mt-4 grid gap-6 lg:grid-cols-[1fr_19rem]">
          <div className="grid min-w-0 content-start gap-5">
            {current ? (
              <Activity
                key={current.a.id} // words that are being typed stay while an answer arrives
                activity={current.a}
                level={current.level}
                came={current.came}
                last={current.last}
                append={append}
              />
            ) : (
              <p className="say text-[1.3rem]">That is enough for today.</p>
            )}
            {m.takeHome.length > 0 && (
              <section aria-label="To take home" className="rounded-lg border border-line p-5">
                <h2 className="text-lg">To take home tonight</h2>
                <ul className="mt-1 grid gap-3 sm:grid-cols-2">
                  {m.takeHome.map((t) => (
                    <li key={t.id}>
                      <strong>{t.name}</strong>
                      <span className="fine block">{t.words}</span>
                    </li>
                  ))}
                </ul>
                <Link className="press press-main mt-3" to={`/week/${ladder}`}>
                  The first week at home
                </Link>
              </section>
            )}
          </div>
          <aside>
            <label className="flex items-center gap-3">
              <span className="fine">minutes</span>
              <select value={minutes} onChange={(e) => set("minutes", e.target.value)}>
                {[15, 30, 45].map((n) => (
                  <option key={n}>{n}</option>
                ))}
              </select>
            </label>
            <ol className="mt-2" aria-label="The meeting">
              {now.map((x) => (
                <li key={x.a.id}>
                  <button
                    type="button"
                    className={`quiet w-full justify-start text-left ${current?.a.id === x.a.id ? "font-bold" : ""}`}
                    aria-current={current?.a.id === x.a.id ? "step" : undefined}
                    onClick={() => setChosen(x.a.id)}
                  >
                    {x.a.name}
                  </button>
                  <span className="fine -mt-2 block pl-3">
                    {x.came.length > 0 ? x.came.at(-1) : `${x.a.minutes} minutes`}
                  </span>
                </li>
              ))}
            </ol>
            <p className="fine mt-3">
              Stop at any time: what was touched is kept, and goes on next week. Feet hang? See{" "}
              <Link className="underline underline-offset-4" to={`/setup/${ladder}`}>
                the seat
              </Link>{" "}
              for how high the platform is.
            </p>
          </aside>
        </div>
      )}
    </div>
  );
}
