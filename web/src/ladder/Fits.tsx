import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useFits } from "../data/ladder";
import { leapSize, strandNames } from "../data/words";
import { Problem, Waiting } from "../parts/Problem";
import { Why } from "../parts/Why";

/** Everything that could come next, ranked by readiness and fit; what is blocked comes last and says the way. */
export function Fits(props: {
  ladder: string;
  strand: Schemas["Strand"];
  busy: boolean;
  /** The rung that was touched, when it is ahead: others can change places with it. */
  rung?: Schemas["Rung"];
  onInsert: (material: string, strand: Schemas["Strand"]) => void;
  onSwap: (material: string) => void;
}) {
  const [all, setAll] = useState(false);
  const fit = useFits(props.ladder, all ? undefined : props.strand);
  if (fit.isPending) return <Waiting />;
  if (fit.error) return <Problem error={fit.error} />;
  const { candidates, taste } = fit.data;
  return (
    <section aria-label="What fits" className="mt-6 border-t border-line pt-4">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2>What fits</h2>
        <label className="fine flex min-h-touch items-center gap-2">
          <input
            type="checkbox"
            className="size-5 min-h-0 accent-working"
            checked={all}
            onChange={(e) => setAll(e.target.checked)}
          />
          all strands
        </label>
      </div>
      {taste.length > 0 && (
        <p className="fine">
          Taste so far:{" "}
          {taste.map((t, i) => (
            <span key={t.tag} title={t.why}>
              {i > 0 && ", "}
              {t.score > 0 ? "likes" : "does not take to"} what is {t.tag}
            </span>
          ))}
          .
        </p>
      )}
      <ol className="mt-1">
        {candidates.slice(0, 12).map((c) => (
          <li key={c.material} className="border-t border-line/60 py-1.5">
            <div className="flex items-center justify-between gap-2">
              <span className={c.blocks.length > 0 ? "text-soft" : ""}>
                {c.blocks.length > 0 && (
                  <svg
                    viewBox="0 0 20 20"
                    width="12"
                    height="12"
                    role="img"
                    className="mr-1.5 inline text-cliff"
                  >
                    <title>blocked</title>
                    <path d="M3 10h14" stroke="currentColor" strokeWidth="5" />
                  </svg>
                )}
                {c.title}
                {all && <span className="fine"> · {strandNames[c.strand]}</span>}
              </span>
              <Why
                label={`Why does ${c.title} stand here?`}
                shown={c.unknown ? "not known yet" : `${Math.round(c.ready * 100)} %`}
              >
                <Parts candidate={c} />
              </Why>
            </div>
            {c.blocks.length > 0 && <p className="fine">{c.blocks[0]?.why}</p>}
            {!c.onLadder && (
              <button
                type="button"
                className="quiet -ml-2"
                disabled={props.busy}
                onClick={() => props.onInsert(c.material, c.strand)}
              >
                Try it as the next rung
              </button>
            )}
            {props.rung && c.strand === props.strand && c.material !== props.rung.material && (
              <button
                type="button"
                className="quiet -ml-2"
                disabled={props.busy}
                onClick={() => props.onSwap(c.material)}
              >
                {c.onLadder ? "Swap it with" : "Try it instead of"} “{props.rung.title}”
              </button>
            )}
          </li>
        ))}
      </ol>
      <p className="fine mt-1">The share is how much of what it needs is there.</p>
    </section>
  );
}

function Parts({ candidate: c }: { candidate: Schemas["FitCandidate"] }) {
  const parts: [string, number, number][] = [
    ["what is there", c.ready, 2],
    [`the leap of ${leapSize(c.leap)}`, c.size, 1.5],
    ["taste", c.taste, 0.75],
    ["an idle strand", c.balance, 0.4],
  ];
  return (
    <>
      <p>{sentence(c.reasons)}</p>
      {c.unknown && <p>Add its score, or name its skills: then this says how it fits.</p>}
      <ul className="figures mt-2">
        {(c.unknown ? [] : parts).map(([name, value, weight]) => (
          <li key={name} className="flex justify-between gap-3">
            <span>{name}</span>
            <span className="fine">
              {weight} × {value.toFixed(2)} = {(weight * value).toFixed(2)}
            </span>
          </li>
        ))}
      </ul>
      {c.blocks.map((b) => (
        <div key={b.why} className="mt-3">
          <p className="text-cliff">{b.why}</p>
          <p className="fine">The shortest way to it:</p>
          <ol className="list-decimal pl-5">
            {b.way.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ol>
        </div>
      ))}
    </>
  );
}

const sentence = (parts: string[]) => {
  const text = parts.join("; ");
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
};
