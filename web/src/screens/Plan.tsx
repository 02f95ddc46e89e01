import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { usePlan } from "../data/lesson";
import { useToday } from "../data/people";
import { longDay } from "../data/words";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { drop, free, type Hand, move, pin, starts } from "../plan/hand";
import { LessonBar } from "../plan/LessonBar";
import { SegmentMark } from "../plan/SegmentMark";
import { SegmentRow } from "../plan/SegmentRow";

/** The plan of a lesson: what fits in its minutes and why, changed by hand and solved again at once. */
export function Plan() {
  const { ladder = "" } = useParams();
  const [params] = useSearchParams();
  const day = params.get("day") ?? undefined;
  const { plan, solve } = usePlan(ladder, day);
  const today = useToday();
  const [picked, setPicked] = useState<string>();
  if (plan.isPending) return <Waiting />;
  if (plan.error) return <Problem error={plan.error} again={() => plan.refetch()} />;
  const p = plan.data;
  const at = starts(p.segments);
  const change = (hand: Hand) => solve.mutate({ ...hand, version: p.hand.version });
  return (
    <div className="mx-auto max-w-[80rem] px-4 py-4 sm:px-6">
      <Title of={`${p.student.name}, plan`} />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div className="min-w-0 flex-1 basis-96">
          <p className="fine">
            {p.student.name} · {longDay(p.day)}, {p.student.startsAt}
          </p>
          <h1 className="text-[1.6rem]">{p.sentence}</h1>
        </div>
        <div className="flex flex-wrap items-center gap-2">
          <Minutes plan={p} busy={solve.isPending || p.begun} change={change} />
          <Link className="press" to={`/ladder/${ladder}`}>
            Ladder
          </Link>
          {p.day === today && (
            <Link className="press press-main" to={`/lesson/${ladder}`}>
              Start the lesson
            </Link>
          )}
        </div>
      </div>
      {p.note && <p className="mt-2 max-w-prose border-l-4 border-focus pl-3">{p.note}</p>}
      {p.changed.length > 0 && (
        <section aria-label="What changed" className="mt-2 max-w-prose border-l-4 border-cliff pl-3">
          <p>Something happened since this was planned. It would be planned differently now:</p>
          <ul className="list-disc pl-5">
            {p.changed.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          <button
            type="button"
            className="press press-main mt-1"
            disabled={solve.isPending}
            onClick={() => change(p.hand)}
          >
            Plan again, keep what is pinned
          </button>
        </section>
      )}
      {p.begun && <p className="fine mt-2">The lesson has begun: the plan stays as it is.</p>}
      <LessonBar segments={p.segments} minutes={p.minutes} picked={picked} onPick={setPicked} />
      <Refused error={solve.error} />
      <div className="mt-2 flex flex-col gap-8 lg:flex-row">
        <ol aria-label="Segments" className="min-w-0 flex-1 border-b border-line">
          {p.segments.map((s, i) => (
            <SegmentRow
              key={s.id}
              segment={s}
              start={at[i] ?? 0}
              open={s.id === picked}
              busy={solve.isPending || p.begun}
              onOpen={() => setPicked(s.id === picked ? undefined : s.id)}
              onMinutes={(minutes) => change(pin(p.hand, s.id, minutes))}
              onPin={(on) => change(on ? pin(p.hand, s.id, s.minutes) : free(p.hand, s.id))}
              onMove={(by) => change(move(p.hand, p.segments, s.id, by))}
              onDrop={() => change(drop(p.hand, s.id))}
            />
          ))}
        </ol>
        <aside className="lg:w-[22rem] lg:shrink-0">
          <Shares plan={p} />
          <h2 className="mt-4 text-lg">Left for next week</h2>
          {p.left.length === 0 && <p>Nothing has to wait.</p>}
          <Left list={p.left} busy={solve.isPending || p.begun} add={(id) => change(pin(p.hand, id, 0))} />
          {p.others.length > 0 && (
            <>
              <h2 className="mt-4 text-lg">Also possible</h2>
              <Left
                list={p.others}
                busy={solve.isPending || p.begun}
                add={(id) => change(pin(p.hand, id, 0))}
              />
            </>
          )}
        </aside>
      </div>
    </div>
  );
}

/** What is not in the lesson; of many learned pieces the first. */
function Left(props: { list: Schemas["PlanSegment"][]; busy: boolean; add: (id: string) => void }) {
  const { list } = props;
  const [all, setAll] = useState(false);
  const learned = list.filter((s) => s.kind === "review");
  const more = all ? 0 : Math.max(0, learned.length - 3);
  const hidden = new Set(more ? learned.slice(-more) : []);
  return (
    <>
      <ul>
        {list
          .filter((s) => !hidden.has(s))
          .map((s) => (
            <li key={s.id} className="flex items-start gap-3 border-t border-line/60 py-2">
              <span className="mt-1">
                <SegmentMark layer={s.layer} size={15} />
              </span>
              <span className="min-w-0 flex-1 leading-tight">
                {s.title}
                <span className="fine block">{s.reason}</span>
              </span>
              <button
                type="button"
                className="quiet -my-1 shrink-0"
                disabled={props.busy}
                onClick={() => props.add(s.id)}
              >
                Add to this lesson
                <span className="sr-only">: {s.title}</span>
              </button>
            </li>
          ))}
      </ul>
      {more > 0 && (
        <button type="button" className="quiet -ml-2" onClick={() => setAll(true)}>
          and {more} more learned {more === 1 ? "piece" : "pieces"}
        </button>
      )}
    </>
  );
}

/** The minutes of this one lesson. */
function Minutes(props: { plan: Schemas["LessonPlan"]; busy: boolean; change: (h: Hand) => void }) {
  const { plan } = props;
  const choices = [...new Set([15, 20, 30, 40, 45, 60, plan.usualMinutes, plan.minutes])].sort(
    (a, b) => a - b,
  );
  return (
    <label className="flex items-center gap-2">
      <span className="fine">minutes</span>
      <select
        value={plan.minutes}
        disabled={props.busy}
        onChange={(e) => props.change({ ...plan.hand, minutes: Number(e.target.value) })}
      >
        {choices.map((m) => (
          <option key={m} value={m}>
            {m}
            {m === plan.usualMinutes ? " (usual)" : ""}
          </option>
        ))}
      </select>
    </label>
  );
}

/** How the minutes are shared among the layers; review against its aim. */
function Shares({ plan: p }: { plan: Schemas["LessonPlan"] }) {
  return (
    <section aria-label="Review in this lesson">
      <svg viewBox="0 0 320 26" className="w-full" role="img" aria-label={`${p.review} of ${p.aim} minutes`}>
        <rect x="0" y="6" width="320" height="12" rx="6" fill="var(--color-fold)" />
        <rect
          x="0"
          y="6"
          width={Math.max(4, (320 * p.review) / p.minutes)}
          height="12"
          rx="6"
          fill="var(--color-review)"
        />
        <path d={`M${(320 * p.aim) / p.minutes} 0V26`} stroke="var(--color-ink)" strokeWidth="2.5" />
      </svg>
      <p className="fine">
        Review: {p.review} min (aim {p.aim})
        {p.free > 0 && ` ${p.free} ${p.free === 1 ? "minute is" : "minutes are"} free.`}
      </p>
    </section>
  );
}
