import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { firstName } from "../data/words";
import { NextRung } from "../ladder/NextRung";
import { MarkGlyph } from "../parts/MarkGlyph";
import { Faults } from "../technique/Faults";
import { GateChoice } from "../week/Gates";
import { FocusCard } from "./FocusCard";
import { LastTap } from "./lastTap";
import { marked, nextPoint } from "./marks";
import { OwnPoint } from "./OwnPoint";
import { RunSheet } from "./RunSheet";
import { SpotStrip } from "./SpotStrip";

/** One working piece in the lesson: its points one at a time, its spots, and the run. */
export function PieceCard(props: {
  piece: Schemas["LessonPiece"];
  lesson: Schemas["Lesson"];
  append: Append;
}) {
  const { piece, lesson, append } = props;
  const firstOpen = Math.max(
    0,
    piece.points.findIndex((p) => p.mark !== "full"),
  );
  const [at, setAt] = useState(firstOpen);
  const [running, setRunning] = useState(false);
  const [spotting, setSpotting] = useState(false);
  const tap = useRef(new LastTap());
  const point = piece.points[Math.min(at, piece.points.length - 1)];
  const unmarked = piece.points.filter((p) => !p.mark).length;

  const mark = (value: Schemas["Mark"]) => {
    if (!point || tap.current.repeats(point.id, value)) return;
    append.mutate(marked(piece, point, value));
    setAt(nextPoint(piece.points, at));
  };
  const takeBack = () => {
    const last = lesson.log.at(-1);
    if (last) append.mutate([entry("correction", { corrects: last.id })]);
  };
  useKeys(piece.state === "working" && !running, {
    "1": () => mark("none"),
    "2": () => mark("part"),
    "3": () => mark("full"),
    arrowright: () => setAt((i) => Math.min(piece.points.length - 1, i + 1)),
    arrowleft: () => setAt((i) => Math.max(0, i - 1)),
    h: () => setSpotting((s) => !s),
    g: () => setRunning(true),
    backspace: takeBack,
  });

  if (piece.state !== "working")
    return (
      <div className="mt-3 rounded-lg border border-line bg-sheet p-5">
        <p className="say text-good">“{piece.title}” is cleared.</p>
        <p>{piece.why}</p>
        <NextRung ladder={lesson.student.ladder} strand={piece.strand} />
      </div>
    );
  return (
    <article className="mt-3 rounded-lg border border-line bg-sheet p-4 sm:p-6" aria-label={piece.title}>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2>{piece.title}</h2>
        <p className="fine max-sm:hidden">{piece.from}</p>
      </div>
      {piece.opening && <p className="fine mt-1">Begins with {piece.opening}.</p>}
      <div className="mt-4 flex flex-col gap-5 md:flex-row">
        <div className="min-w-0 shrink-0 md:w-64">
          <ol className="flex gap-1 overflow-x-auto md:flex-col" aria-label="Focus points">
            {piece.points.map((p, i) => (
              <li key={p.id} className="min-w-40 md:min-w-0">
                <button
                  type="button"
                  aria-current={i === at ? "step" : undefined}
                  onClick={() => setAt(i)}
                  className="flex min-h-touch w-full items-center gap-2.5 rounded px-2 py-1 text-left leading-tight hover:bg-fold aria-[current]:bg-fold aria-[current]:font-semibold"
                >
                  <span className={p.mark === "full" ? "text-good" : "text-working"}>
                    <MarkGlyph mark={p.mark} />
                  </span>
                  <span>
                    {p.text}
                    {p.own && <span className="fine block">own point, goes with every piece</span>}
                  </span>
                </button>
              </li>
            ))}
          </ol>
          <OwnPoint
            name={lesson.student.called || firstName(lesson.student.name)}
            piece={piece}
            append={append}
          />
        </div>
        {point && <FocusCard key={point.id} point={point} onMark={mark} />}
      </div>
      {piece.exercise && (
        <div className="mt-4 border-t border-line pt-2">
          <Faults
            wide
            faults={piece.faults}
            mark={(focus, value) =>
              append.mutate([entry("mark", { material: piece.material, focus, mark: value })])
            }
          />
          <Link
            to={`/technique?${new URLSearchParams({ ladder: lesson.student.ladder, exercise: piece.exercise })}`}
            className="quiet"
          >
            See it on the instrument
          </Link>
        </div>
      )}
      <SpotStrip piece={piece} append={append} open={spotting} onOpen={setSpotting} />
      <div className="mt-5 flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-line pt-4">
        <button
          type="button"
          className={`press ${piece.runDue || unmarked === 0 ? "press-main" : ""}`}
          onClick={() => setRunning(true)}
        >
          Try a run <kbd className="border-current text-inherit">G</kbd>
        </button>
        <p className="min-w-52 flex-1">
          {piece.why}
          {!piece.runDue && unmarked > 0 && (
            <span className="fine block">
              {unmarked === 1 ? "One point has" : `${unmarked} points have`} no mark yet; hear{" "}
              {unmarked === 1 ? "it" : "them"} before a run.
            </span>
          )}
        </p>
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="fine">At home</span>
        <GateChoice material={piece.material} title={piece.title} gate={piece.gate} append={append} />
        {piece.gate === "automatic" && piece.hand && <span className="fine">now the {piece.hand} only</span>}
      </div>
      <RunSheet
        level={lesson.level}
        open={running}
        onOpenChange={setRunning}
        piece={piece}
        standard={lesson.standard}
        append={append}
      />
    </article>
  );
}

/** Keyboard shortcuts for one hand; they rest while something is typed. */
function useKeys(on: boolean, keys: Record<string, () => void>) {
  useEffect(() => {
    if (!on) return;
    const press = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement && e.target.closest("input, textarea, select, [role=dialog]");
      const act = keys[e.key.toLowerCase()];
      if (!act || typing || e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      e.preventDefault();
      act();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  });
}
