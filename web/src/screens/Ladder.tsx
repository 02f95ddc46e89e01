import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../contract/client";
import { ladderQuery } from "../data/queries";
import { leapSize } from "../data/words";
import { LadderDrawing } from "../ladder/LadderDrawing";
import { NextRung } from "../ladder/NextRung";
import { RungNote } from "../ladder/RungNote";
import { AddPiece } from "../parts/AddPiece";
import { LayerMark } from "../parts/LayerMark";
import { Problem, Waiting } from "../parts/Problem";
import { Why } from "../parts/Why";

/** The heart: a student's strands as rails, materials as rungs, gaps the size of the leap. */
export function Ladder() {
  const { ladder = "" } = useParams();
  const view = useQuery(ladderQuery(ladder));
  const [picked, setPicked] = useState<string>();
  if (view.isPending) return <Waiting />;
  if (view.error) return <Problem error={view.error} again={() => view.refetch()} />;
  const v = view.data;
  const rungs = v.rails.flatMap((r) => r.rungs.map((rung) => ({ rung, strand: r.strand })));
  const chosen =
    rungs.find((r) => r.rung.material === picked) ??
    rungs.find((r) => r.rung.layer === "working") ??
    rungs[0];
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-3.1rem)]">
      <Head view={v} />
      {v.rails.length === 0 ? (
        <p className="px-6 py-10">
          Add a piece of your own to begin, or choose a book when adding the student.
        </p>
      ) : (
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <LadderDrawing view={v} picked={chosen?.rung.material} onPick={setPicked} />
          <aside className="border-line bg-sheet p-5 max-lg:border-t lg:w-[22.5rem] lg:shrink-0 lg:overflow-y-auto lg:border-l">
            {chosen && <RungNote rung={chosen.rung} student={v.student} />}
            {chosen && <NextRung key={chosen.strand} ladder={ladder} strand={chosen.strand} />}
          </aside>
        </div>
      )}
    </div>
  );
}

function Head({ view }: { view: Schemas["LadderView"] }) {
  const s = view.student;
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 border-b border-line px-4 py-3 sm:px-6">
      <div className="min-w-0 max-w-3xl">
        <p className="fine">
          {s.name} · {s.instrument} · {s.age} years
        </p>
        <h1 className="text-[1.5rem]">{view.sentence}</h1>
        <div className="fine mt-1 flex flex-wrap items-center gap-x-4">
          <Legend />
          <span className="inline-flex items-center">
            comfortable leap
            <Why label="Why this comfortable leap?" shown={leapSize(view.reach)}>
              <p>{view.reachWhy}.</p>
            </Why>
          </span>
        </div>
      </div>
      <div className="flex flex-wrap gap-2">
        <Link to={`/lesson/${s.ladder}`} className="press press-main">
          Lesson
        </Link>
        <Link to={`/week/${s.ladder}`} className="press">
          Week
        </Link>
        <AddPiece student={s} />
      </div>
    </div>
  );
}

function Legend() {
  const layers = [
    ["working", "working"],
    ["preview", "ahead, being planted"],
    ["ahead", "ahead"],
    ["review", "review"],
  ] as const;
  return (
    <>
      <span className="inline-flex items-center gap-1.5">
        <svg width="18" height="4" aria-hidden="true">
          <path d="M0 2h18" stroke="var(--color-working)" strokeWidth="2" strokeDasharray="5 3" />
        </svg>
        now
      </span>
      <span className="inline-flex items-center gap-1.5">
        <svg viewBox="0 0 20 20" width="12" height="12" className="text-working" aria-hidden="true">
          <path d="M4 16L10 4l6 12z" fill="currentColor" />
        </svg>
        run due
      </span>
      {layers.map(([layer, word]) => (
        <span key={layer} className="inline-flex items-center gap-1.5">
          <LayerMark layer={layer} size={13} />
          {word}
        </span>
      ))}
    </>
  );
}
