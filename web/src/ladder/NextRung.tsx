import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../contract/client";
import { entry, useAppend } from "../data/entries";
import { useNext } from "../data/ladder";
import { useTechnique } from "../data/technique";
import { useLessonAppend } from "../data/useLessonAppend";
import { strandNames } from "../data/words";
import { LeapParts } from "../parts/LeapParts";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Why } from "../parts/Why";
import { NextExercises } from "../technique/NextExercises";

/** The proposed next rung of a strand: which, why, what is new in it, and what else was looked at. */
export function NextRung({ ladder, strand }: { ladder: string; strand: Schemas["Strand"] }) {
  const next = useNext(ladder, strand);
  const append = useAppend(ladder);
  // The entry is made once for each proposal: a double tap begins a piece once.
  const [made, setMade] = useState<ReturnType<typeof entry>>();
  if (next.isPending) return <Waiting />;
  if (next.error) return <Problem error={next.error} />;
  const { chosen, considered, reasons, last } = next.data;
  const begin = (material: string) => {
    const e = made?.material === material ? made : entry("assigned", { material });
    setMade(e);
    append.mutate([e]);
  };
  return (
    <section aria-label="Next rung" className="mt-7 border-t border-line pt-4">
      <p className="fine">Next on {strandNames[strand]}</p>
      {chosen && (
        <h2 className="mt-1 flex items-baseline justify-between gap-3">
          {chosen.title}
          <Why
            label={
              chosen.leap.unknown
                ? `Why is the leap to ${chosen.title} not known?`
                : `Why a leap of ${chosen.leap.words}?`
            }
            shown={`leap ${chosen.leap.words}`}
          >
            <LeapParts leap={chosen.leap} />
          </Why>
        </h2>
      )}
      <ul className="mt-2 space-y-1.5">
        {reasons.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
      {strand === "technique" && <OnTheStaircases ladder={ladder} />}
      {last.length > 0 && <LastLeaps last={last} reach={next.data.reach} />}
      {chosen && (
        <button
          type="button"
          className="press press-main mt-4 w-full"
          disabled={append.isPending}
          onClick={() => begin(chosen.material)}
        >
          Begin “{chosen.title}”
        </button>
      )}
      <Refused error={append.error} />
      {considered.length > 1 && (
        <details className="mt-3">
          <summary className="fine min-h-touch content-center">Also looked at</summary>
          <ul>
            {considered
              .filter((c) => c.material !== chosen?.material)
              .map((c) => (
                <li key={c.material} className="flex items-center justify-between gap-2">
                  <span className="truncate">{c.title}</span>
                  <Why label={`Leap of ${c.title}`} shown={c.leap.words}>
                    <LeapParts leap={c.leap} />
                    {c.blocked.length > 0 && (
                      <p className="mt-2">Two firsts at once: {c.blocked.join(", ")}.</p>
                    )}
                  </Why>
                </li>
              ))}
          </ul>
        </details>
      )}
    </section>
  );
}

/** What the staircases of exercises propose beside the rungs that stand ahead. */
function OnTheStaircases({ ladder }: { ladder: string }) {
  const technique = useTechnique(ladder);
  const { append } = useLessonAppend(ladder);
  const navigate = useNavigate();
  if (!technique.data) return null;
  return (
    <div className="mt-4">
      <NextExercises
        ladder={ladder}
        proposed={technique.data.proposed}
        open={(exercise) => navigate(`/technique?${new URLSearchParams({ ladder, exercise })}`)}
        append={append}
      />
    </div>
  );
}

/** The leaps so far as strokes against the comfortable reach: hard pieces followed by easy ones. */
function LastLeaps({ last, reach }: { last: Schemas["TakenLeap"][]; reach: number }) {
  const shown = last.slice(-10);
  const most = Math.max(...shown.map((l) => l.size), reach);
  const height = 44;
  return (
    <figure className="mt-3">
      <svg
        viewBox={`0 0 200 ${height}`}
        className="h-11 w-full"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        {shown.map((l, i) => (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: a sequence in its own order
            key={i}
            x={i * 20 + 4}
            width="12"
            y={height - Math.max(2, (l.size / most) * (height - 2))}
            height={Math.max(2, (l.size / most) * (height - 2))}
            fill={l.bigJump ? "var(--color-cliff)" : "var(--color-working)"}
          />
        ))}
        <path
          d={`M0 ${height - (reach / most) * (height - 2)}h200`}
          stroke="var(--color-ink)"
          strokeDasharray="3 4"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <figcaption className="fine">
        The leaps so far, oldest first; the dashed line is the comfortable reach.
      </figcaption>
    </figure>
  );
}
