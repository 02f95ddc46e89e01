import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { cycleQuery, studentsQuery } from "../data/queries";
import { shortDate } from "../data/words";
import { Refused } from "../parts/Problem";

/** The twelve keys over a student's lessons, a key each; a gap where lessons fall out. */
export function CycleStrip({ first, pick }: { first: string; pick: (key: string) => void }) {
  const students = useQuery(studentsQuery);
  const [chosen, setLadder] = useState<string>();
  const [order, setOrder] = useState<"fifths" | "semitones">("fifths");
  const [missed, setMissed] = useState<string[]>([]);
  const ladder = chosen ?? students.data?.[0]?.ladder ?? "";
  const cycle = useQuery({ ...cycleQuery(ladder, first, order, missed), enabled: ladder !== "" });
  const c = cycle.data;
  return (
    <section aria-label="Cycle of keys" className="mt-8 border-t border-line pt-4">
      <h2>{c ? c.sentence : "The cycle of keys"}</h2>
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <label className="flex min-w-0 flex-col">
          <span className="fine">The lessons of</span>
          <select value={ladder} onChange={(e) => setLadder(e.target.value)}>
            {(students.data ?? []).map((s) => (
              <option key={s.ladder} value={s.ladder}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex flex-col">
          <span className="fine">Order, from {first}</span>
          <select value={order} onChange={(e) => setOrder(e.target.value as typeof order)}>
            <option value="fifths">by fifths</option>
            <option value="semitones">by semitones</option>
          </select>
        </label>
        <button type="button" className="quiet" onClick={() => pick("B")}>
          Begin with B, where the long fingers lie on the black keys
        </button>
      </div>
      <Refused error={cycle.error} />
      {c && (
        <ol className="mt-3 flex flex-wrap gap-y-3" aria-label="Weeks of the cycle">
          {c.weeks.map((w) => (
            <li key={w.key} className="flex items-stretch">
              {w.off > 0 && (
                <span className="fine mx-1 flex w-16 items-center border-y-2 border-dashed border-line px-1 text-center leading-tight">
                  {w.off === 1 ? "a week" : `${w.off} weeks`} off
                </span>
              )}
              <span className="mr-1 flex flex-col border-t-[5px] border-working bg-sheet">
                <button
                  type="button"
                  aria-pressed={w.key === first}
                  className="min-h-touch min-w-20 px-2 text-lg aria-pressed:bg-reach aria-pressed:font-bold"
                  onClick={() => pick(w.key)}
                >
                  {w.key.replace("b", "♭").replace("#", "♯")}
                  <span className="fine block">{shortDate(w.day).replace(/ \d{4}$/, "")}</span>
                </button>
                <button
                  type="button"
                  className="quiet px-1 text-[0.8rem]"
                  onClick={() => setMissed([...missed, w.day])}
                >
                  missed<span className="sr-only"> on {shortDate(w.day)}</span>
                </button>
              </span>
            </li>
          ))}
        </ol>
      )}
      {missed.length > 0 && (
        <button type="button" className="quiet" onClick={() => setMissed([])}>
          No lesson was missed
        </button>
      )}
      {c && <p className="fine mt-2">Time around: {c.passes.map((p, i) => `${i + 1}. ${p}`).join("; ")}.</p>}
    </section>
  );
}
