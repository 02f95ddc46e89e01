import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useSavePractice } from "../data/home";
import { useFirstDay } from "../data/people";
import { weekdaysFrom } from "../data/time";
import { weekdayOf } from "../data/words";
import { Refused } from "../parts/Problem";

/** 22 November 2026 was a Sunday. */
const nameOf = (d: number) => weekdayOf(`2026-11-${22 + d}`);

/** What holds for every week: the days, the minutes, the hands. */
export function Usual(props: { ladder: string; practice: Schemas["Practice"]; name: string }) {
  const [practice, setPractice] = useState(props.practice);
  const save = useSavePractice(props.ladder);
  const weekdays = weekdaysFrom(useFirstDay());
  const change = (p: Partial<Schemas["Practice"]>) => {
    const next = { ...practice, ...p };
    setPractice(next);
    save.mutate(next);
  };
  return (
    <section aria-label="Every week">
      <h2 className="text-lg">Every week</h2>
      <div className="mt-1 flex flex-wrap items-end gap-x-5 gap-y-2">
        <fieldset className="flex flex-wrap gap-1" disabled={save.isPending}>
          <legend className="fine">Days on which {props.name} practises</legend>
          {weekdays.map((d) => (
            <button
              key={d}
              type="button"
              aria-pressed={practice.days[d]}
              className="min-h-touch min-w-touch rounded border-2 border-line px-1.5 aria-pressed:border-working aria-pressed:bg-reach aria-pressed:font-semibold"
              onClick={() => change({ days: practice.days.map((on, i) => (i === d ? !on : on)) })}
            >
              <span className="sr-only">{nameOf(d)}</span>
              <span aria-hidden="true">{nameOf(d).slice(0, 3)}</span>
            </button>
          ))}
        </fieldset>
        <label className="flex flex-col">
          <span className="fine">Usual minutes</span>
          <select
            value={practice.minutes}
            disabled={save.isPending}
            onChange={(e) => change({ minutes: Number(e.target.value) })}
          >
            {[...new Set([5, 10, 15, 20, 25, 30, 40, 50, 60, 90, practice.minutes])]
              .sort((a, b) => a - b)
              .map((m) => (
                <option key={m} value={m}>
                  {m}
                </option>
              ))}
          </select>
        </label>
        {practice.twoHands && (
          <label className="flex min-h-touch items-center gap-2">
            <input
              type="checkbox"
              className="min-h-6 w-6 accent-working"
              checked={practice.handsApart}
              disabled={save.isPending}
              onChange={(e) => change({ handsApart: e.target.checked })}
            />
            Hands apart first: right a week, left a week, then together
          </label>
        )}
      </div>
      <Refused error={save.error} />
    </section>
  );
}
