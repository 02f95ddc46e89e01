import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../contract/client";
import { lessonQuery, planQuery } from "../data/lesson";
import { useLessonAppend } from "../data/useLessonAppend";
import { Bites } from "../lesson/Bites";
import { LastTime } from "../lesson/LastTime";
import { LessonClock } from "../lesson/LessonClock";
import { LessonLog } from "../lesson/LessonLog";
import { Moment } from "../lesson/Moment";
import { Observe } from "../lesson/Observe";
import { PieceCard } from "../lesson/PieceCard";
import { withPending } from "../lesson/pending";
import { Reviews } from "../lesson/Reviews";
import { Sending } from "../lesson/Sending";
import { useLessonClock } from "../lesson/useLessonClock";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { segmentAt } from "../plan/late";

/** The lesson: a bar that runs with the clock, the card of the moment, and what can be noted with one touch. */
export function Lesson() {
  const { ladder = "" } = useParams();
  const lesson = useQuery(lessonQuery(ladder));
  const plan = useQuery(planQuery(ladder));
  const { append: write, waiting } = useLessonAppend(ladder);
  // With the first thing noted in it, the lesson has begun and its plan stays as it is.
  const append = {
    ...write,
    mutate: (entries: Schemas["Entry"][], then?: { onSuccess?: () => void }) =>
      write.mutate(
        entries.map((e) => ({ ...e, lesson: true })),
        then,
      ),
  };
  const gone = useLessonClock(ladder);
  const [at, setAt] = useState<string>();
  const [chosen, setStep] = useState<number>();
  if (lesson.isPending) return <Waiting />;
  if (lesson.error) return <Problem error={lesson.error} again={() => lesson.refetch()} />;
  const l = withPending(
    lesson.data,
    waiting.filter((w) => !w.refused).map((w) => w.entry),
  );
  const piece =
    l.pieces.find((p) => p.material === at) ?? l.pieces.find((p) => p.state === "working") ?? l.pieces[0];
  // The piece that was opened stays in view when it is cleared.
  if (piece && piece.material !== at) setAt(piece.material);
  const segments = plan.data?.segments ?? [];
  // Until a segment is touched the card follows the clock.
  const step = chosen ?? segmentAt(segments, gone);
  const segment = segments[step];
  const go = (to: number) => {
    setStep(Math.min(Math.max(0, to), segments.length - 1));
    const material = segments[to]?.material;
    if (material && l.pieces.some((p) => p.material === material)) setAt(material);
  };
  return (
    <div className="mx-auto max-w-6xl px-3 py-4 sm:px-6">
      <Title of={`${l.student.name}, lesson`} />
      <Head lesson={l} />
      <LastTime lesson={l} />
      <Sending waiting={waiting} />
      {plan.data && <LessonClock plan={plan.data} at={step} gone={gone} onPick={go} />}
      {segment && (
        <Moment
          key={segment.id}
          segment={segment}
          ladder={ladder}
          append={append}
          unsent={waiting.map((w) => w.entry)}
          next={() => go(step + 1)}
        />
      )}
      {l.pieces.length > 1 && (
        <div
          role="tablist"
          aria-label="Pieces of this lesson"
          className="mt-3 flex gap-1 overflow-x-auto border-b-2 border-line"
        >
          {l.pieces.map((p) => (
            <button
              key={p.material}
              type="button"
              role="tab"
              aria-selected={p === piece}
              className="min-h-touch shrink-0 rounded-t-lg px-4 aria-selected:bg-sheet aria-selected:font-semibold"
              onClick={() => setAt(p.material)}
            >
              {p.title}
            </button>
          ))}
        </div>
      )}
      {piece ? (
        <PieceCard key={piece.material} piece={piece} lesson={l} append={append} />
      ) : (
        <p className="mt-6">
          <Link className="press press-main" to={`/ladder/${ladder}`}>
            Choose the next rung
          </Link>
        </p>
      )}
      <div className="mt-3">
        <Refused error={append.error} />
      </div>
      <Bites lesson={l} append={append} />
      <Reviews lesson={l} append={append} />
      <Observe usual={l.usual} append={append} />
      <LessonLog lesson={l} append={append} />
    </div>
  );
}

function Head({ lesson }: { lesson: Schemas["Lesson"] }) {
  const s = lesson.student;
  return (
    <div className="flex flex-wrap items-end justify-between gap-3">
      <div>
        <p className="fine">
          {s.name} · {s.instrument} · {s.age} years
        </p>
        <h1 className="text-[1.15rem] sm:text-[1.5rem]">{lesson.sentence}</h1>
      </div>
      <div className="flex gap-2">
        <Link to={`/ladder/${s.ladder}`} className="press">
          Ladder
        </Link>
        <Link to={`/plan/${s.ladder}`} className="press">
          Plan
        </Link>
        <Link to={`/close/${s.ladder}`} className="press">
          Close the lesson
        </Link>
      </div>
    </div>
  );
}
