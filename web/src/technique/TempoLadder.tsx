import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { tempiQuery } from "../data/queries";
import { Refused } from "../parts/Problem";

/** A climb on the marks of the metronome, a week each; a mark that is touched is the tempo to play at. */
export function TempoLadder({ tempo, pick }: { tempo: number; pick: (tempo: number) => void }) {
  const [from, setFrom] = useState(60);
  const [to, setTo] = useState(96);
  const [weeks, setWeeks] = useState(5);
  const tempi = useQuery(tempiQuery(from, to, weeks));
  const marks = tempi.data?.marks ?? [];
  const low = Math.min(from, ...marks);
  const high = Math.max(to, ...marks);
  return (
    <section aria-label="Tempo ladder" className="mt-8 border-t border-line pt-4">
      <h2>Tempo ladder</h2>
      <div className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2">
        <Field label="from, as it really goes" value={from} set={setFrom} />
        <Field label="to" value={to} set={setTo} />
        <Field label="in weeks" value={weeks} set={setWeeks} />
      </div>
      <Refused error={tempi.error} />
      {!tempi.error && (
        <ol className="mt-4 flex items-end gap-1 overflow-x-auto pb-1" aria-label="Weeks">
          {marks.map((m, i) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: weeks in their order
              key={i}
              className="min-w-14 flex-1"
            >
              <button
                type="button"
                aria-pressed={m === tempo}
                onClick={() => pick(m)}
                className="flex w-full flex-col justify-end border-t-[5px] border-working bg-reach px-1 pb-1 text-center aria-pressed:bg-working aria-pressed:text-on-working"
                style={{ height: `${3.4 + (4.6 * (m - low)) / Math.max(1, high - low)}rem` }}
              >
                <strong className="figures text-lg">{m}</strong>
                <span className="text-fine">week {i + 1}</span>
              </button>
            </li>
          ))}
        </ol>
      )}
      <p className="fine mt-1">After a bad week go back a mark, and take one week more.</p>
    </section>
  );
}

function Field(props: { label: string; value: number; set: (n: number) => void }) {
  return (
    <label className="flex flex-col">
      <span className="fine">{props.label}</span>
      <input
        type="number"
        inputMode="numeric"
        className="figures w-24"
        value={props.value}
        onChange={(e) => props.set(e.target.valueAsNumber || 0)}
      />
    </label>
  );
}
