import { useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import { useTempi } from "../data/technique";
import type { Append } from "../data/useLessonAppend";
import { Refused } from "../parts/Problem";

/** The climb of an exercise on the marks of the metronome, a week each: the one that is kept, or one to try. */
export function TempoLadder({ now, append }: { now: Schemas["TechniqueNow"]; append: Append }) {
  return now.climb ? (
    <Kept now={now} climb={now.climb} append={append} />
  ) : (
    <Trying now={now} append={append} />
  );
}

function Kept(props: { now: Schemas["TechniqueNow"]; climb: Schemas["Climb"]; append: Append }) {
  const { now, climb: c, append } = props;
  const done = c.at === c.marks.length;
  const played = (held: boolean) =>
    append.mutate([entry("tempo", { material: now.material, tempo: c.mark, held })]);
  return (
    <section aria-label="Tempo ladder" className="mt-6 border-t border-line pt-3">
      <h2 className="text-lg">Tempo ladder: {c.sentence}</h2>
      <Marks marks={c.marks} at={c.at} />
      <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        {!done && (
          <>
            <button type="button" className="press border-good" onClick={() => played(true)}>
              {c.mark} held
            </button>
            <button type="button" className="press border-line" onClick={() => played(false)}>
              {c.mark} did not hold
            </button>
          </>
        )}
        <button
          type="button"
          className="quiet"
          onClick={() =>
            append.mutate([entry("climb", { material: now.material, climb: { from: 0, to: 0, weeks: 0 } })])
          }
        >
          {done ? "A new one" : "Put it away"}
        </button>
        <span className="fine">After a bad week it goes back a mark and takes a week more.</span>
      </div>
    </section>
  );
}

function Trying({ now, append }: { now: Schemas["TechniqueNow"]; append: Append }) {
  const [from, setFrom] = useState(now.tempo || Math.max(40, now.goalTempo - 20));
  const [to, setTo] = useState(Math.max(now.goalTempo, (now.tempo || 0) + 12));
  const [weeks, setWeeks] = useState(5);
  const tempi = useTempi(from, to, weeks);
  return (
    <section aria-label="Tempo ladder" className="mt-6 border-t border-line pt-3">
      <h2 className="text-lg">Tempo ladder</h2>
      <div className="mt-1 flex flex-wrap items-end gap-x-4 gap-y-2">
        <Field label="from, as it really goes" value={from} set={setFrom} />
        <Field label="to" value={to} set={setTo} />
        <Field label="in weeks" value={weeks} set={setWeeks} />
        <button
          type="button"
          className="press"
          disabled={!tempi.data || Boolean(tempi.error)}
          onClick={() =>
            append.mutate([entry("climb", { material: now.material, climb: { from, to, weeks } })])
          }
        >
          Keep it
        </button>
      </div>
      <Refused error={tempi.error} />
      {!tempi.error && <Marks marks={tempi.data?.marks ?? []} at={-1} />}
    </section>
  );
}

/** The marks as steps; those that held are filled, the one of this week is framed. */
function Marks({ marks, at }: { marks: number[]; at: number }) {
  const low = Math.min(...marks);
  const high = Math.max(...marks);
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: many weeks are scrolled by keys, too
    <ol className="mt-3 flex items-end gap-1 overflow-x-auto pb-1" aria-label="Weeks" tabIndex={0}>
      {marks.map((m, i) => (
        <li
          // biome-ignore lint/suspicious/noArrayIndexKey: weeks in their order
          key={i}
          aria-current={i === at ? "step" : undefined}
          className={`flex min-w-14 max-w-28 flex-1 flex-col justify-end border-t-[5px] px-1 pb-1 text-center ${
            i < at
              ? "border-working bg-working text-on-working"
              : i === at
                ? "border-focus bg-reach outline-2 outline-focus"
                : "border-working bg-reach"
          }`}
          style={{ height: `${3.2 + (3.4 * (m - low)) / Math.max(1, high - low)}rem` }}
        >
          <strong className="figures text-lg">{m}</strong>
          <span className="text-fine">week {i + 1}</span>
        </li>
      ))}
    </ol>
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
