import { useEffect, useState } from "react";
import type { Schemas } from "../contract/client";

/** The minutes of the lesson as a line along the edge; it fills from the first look at the lesson. */
export function ClockLine({ student }: { student: Schemas["Student"] }) {
  const key = `lesson-start-${student.ladder}-${new Date().toDateString()}`;
  const [start] = useState(() => {
    const kept = Number(sessionStorage.getItem(key));
    if (kept) return kept;
    const now = Date.now();
    sessionStorage.setItem(key, String(now));
    return now;
  });
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 15_000);
    return () => clearInterval(timer);
  }, []);
  const gone = Math.floor((now - start) / 60_000);
  const left = student.minutes - gone;
  return (
    <div
      className="flex w-8 shrink-0 sm:w-11 flex-col items-center"
      role="timer"
      aria-label={left >= 0 ? `${left} minutes left of ${student.minutes}` : `${-left} minutes over`}
    >
      <span className="figures fine">{left >= 0 ? left : `+${-left}`}</span>
      <span className="fine -mt-1">min</span>
      <div className="relative mt-1 min-h-80 w-3 flex-1 rounded-full border-2 border-line">
        <div
          className={`absolute inset-x-0 top-0 rounded-full ${left >= 0 ? "bg-working" : "bg-cliff"}`}
          style={{ height: `${Math.min(100, (100 * gone) / student.minutes)}%` }}
        />
        {Array.from({ length: Math.floor(student.minutes / 5) - 1 }, (_, i) => (
          <i
            // biome-ignore lint/suspicious/noArrayIndexKey: ticks on a scale
            key={i}
            className="absolute left-full ml-1 h-[2px] w-2 bg-line"
            style={{ top: `${(500 * (i + 1)) / student.minutes}%` }}
          />
        ))}
      </div>
    </div>
  );
}
