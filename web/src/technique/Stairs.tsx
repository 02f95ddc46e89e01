import { useState } from "react";
import type { Schemas } from "../contract/client";

const rise = 9;

/**
 * The staircases: a step rises over the one before, filled as far as its places are
 * through; the one on which the student stands has a firm edge.
 */
export function Stairs(props: {
  technique: Schemas["Technique"];
  shown?: string;
  open: (exercise: string) => void;
}) {
  const [all, setAll] = useState(false);
  const { stairs } = props.technique;
  const waiting = stairs.filter((s) => s.waits);
  const listed = all ? stairs : stairs.filter((s) => !s.waits);
  return (
    <section aria-label="Staircases" className="mt-8 border-t border-line pt-4">
      <h2>The staircases</h2>
      <ol className="mt-2">
        {listed.map((s) => (
          <Stair key={s.type} stair={s} open={props.open} />
        ))}
      </ol>
      {waiting.length > 0 && (
        <button type="button" className="quiet" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? "Only those that can be climbed now" : `${waiting.length} more wait for another step`}
        </button>
      )}
    </section>
  );
}

function Stair({ stair: s, open }: { stair: Schemas["Stair"]; open: (exercise: string) => void }) {
  return (
    <li className="grid gap-x-4 border-b border-line/60 py-2 md:grid-cols-[11rem_minmax(0,1fr)]">
      <div className={s.waits ? "text-soft" : ""}>
        <strong>{s.name}</strong>
        <span className="fine block">
          {s.waits
            ? `waits for: ${s.waits}`
            : s.at === s.steps.length
              ? "climbed"
              : `on step ${s.at + 1} of ${s.steps.length}`}
        </span>
      </div>
      <ol className="flex items-stretch overflow-x-auto" aria-label={`Steps of ${s.name}`}>
        {s.steps.map((x, i) => {
          const here = i === s.at && !s.waits;
          const target = x.working[0]?.id ?? (here ? s.next?.exercise : x.through.at(-1)?.id);
          const share = x.known || x.passed ? 1 : Math.min(1, x.through.length / x.of);
          return (
            <li
              key={x.name}
              className="min-w-28 max-w-44 flex-1 max-sm:shrink-0"
              style={{ marginTop: (s.steps.length - 1 - i) * rise }}
            >
              <button
                type="button"
                disabled={!target}
                aria-current={here ? "step" : undefined}
                onClick={() => target && open(target)}
                className="relative flex h-full min-h-touch w-full flex-col justify-start overflow-hidden border-t-4 border-line bg-sheet px-2 py-1 text-left leading-tight aria-[current]:border-working enabled:hover:bg-fold"
              >
                <span
                  aria-hidden="true"
                  className="absolute inset-y-0 left-0 bg-reach"
                  style={{ width: `${100 * share}%` }}
                />
                <span className="relative text-[0.86rem]">
                  {x.name}
                  <span className="fine block">
                    {x.working.length > 0
                      ? `now: ${x.working.map((w) => w.name).join("; ")}`
                      : x.known && x.through.length < x.of
                        ? "known from pieces"
                        : x.passed
                          ? "passed: a later step is there"
                          : `${x.through.length} of ${x.of} through`}
                  </span>
                </span>
              </button>
            </li>
          );
        })}
      </ol>
    </li>
  );
}
