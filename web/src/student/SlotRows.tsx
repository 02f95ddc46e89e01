import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useFirstDay } from "../data/people";
import { weekdaysFrom } from "../data/time";
import { weekdayOf } from "../data/words";

export type Slot = Schemas["NewSlot"];

/** 22 November 2026 was a Sunday. */
export const weekdayName = (d: number) => weekdayOf(`2026-11-${22 + d}`);

export const newSlot = (): Slot => ({ id: ulid(), weekday: 1, startsAt: "16:00", minutes: 30, every: 1 });

/** The lesson times of a student on one instrument, to be changed. */
export function SlotRows({ slots, onChange }: { slots: Slot[]; onChange: (s: Slot[]) => void }) {
  const weekdays = weekdaysFrom(useFirstDay());
  const set = (i: number, s: Partial<Slot>) => onChange(slots.map((x, j) => (j === i ? { ...x, ...s } : x)));
  return (
    <div className="grid gap-2">
      {slots.map((s, i) => (
        <div key={s.id} className="flex flex-wrap items-end gap-2 border-t border-line/60 pt-2">
          <label className="flex flex-col">
            <span className="fine">Day</span>
            <select
              name="weekday"
              value={s.weekday}
              onChange={(e) => set(i, { weekday: Number(e.target.value) })}
            >
              {weekdays.map((d) => (
                <option key={d} value={d}>
                  {weekdayName(d)}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col">
            <span className="fine">At</span>
            <input
              type="time"
              required
              value={s.startsAt}
              onChange={(e) => set(i, { startsAt: e.target.value })}
            />
          </label>
          <label className="flex w-24 flex-col">
            <span className="fine">Minutes</span>
            <input
              type="number"
              required
              min={5}
              max={240}
              value={s.minutes || ""}
              onChange={(e) => set(i, { minutes: Number(e.target.value) })}
            />
          </label>
          <label className="flex flex-col">
            <span className="fine">Every</span>
            <select value={s.every} onChange={(e) => set(i, { every: Number(e.target.value) })}>
              <option value={1}>week</option>
              <option value={2}>second week</option>
            </select>
          </label>
          <button type="button" className="quiet" onClick={() => onChange(slots.filter((_, j) => j !== i))}>
            Remove<span className="sr-only"> this lesson time</span>
          </button>
        </div>
      ))}
      <button
        type="button"
        className="quiet justify-self-start"
        onClick={() => onChange([...slots, newSlot()])}
      >
        {slots.length === 0 ? "Add a lesson time" : "Add another lesson time"}
      </button>
    </div>
  );
}
