import type { Schemas } from "../contract/client";
import { weekdayOf } from "../data/words";
import { LessonBlock } from "./LessonBlock";

/** Some weeks as rows of seven days; each day lists its lessons. */
export function MonthGrid(props: {
  days: Schemas["AgendaDay"][];
  today: string;
  onOpen: (l: Schemas["LessonDate"]) => void;
  onDay: (day: string) => void;
}) {
  return (
    <div className="relative overflow-x-auto">
      <div className="grid min-w-[46rem] grid-cols-7 border-l border-t border-line">
        {props.days.slice(0, 7).map((d) => (
          <span key={d.day} className="fine border-b border-r border-line px-2 py-1">
            {weekdayOf(d.day).slice(0, 3)}
          </span>
        ))}
        {props.days.map((d) => (
          <section
            key={d.day}
            aria-label={d.day}
            className={`min-h-28 border-b border-r border-line p-1 ${d.holidays.length > 0 ? "bg-fold/60" : ""}`}
          >
            <button
              type="button"
              onClick={() => props.onDay(d.day)}
              className={`figures min-h-7 min-w-7 rounded px-1 hover:bg-fold ${d.day === props.today ? "bg-working font-semibold text-on-working" : ""}`}
            >
              {Number(d.day.slice(8))}
              <span className="sr-only">, open the week</span>
            </button>
            <span className="ml-1 text-fine text-review">{d.holidays.join(", ")}</span>
            {d.lessons.map((l) => (
              <LessonBlock
                key={l.lesson}
                lesson={l}
                small
                onOpen={() => props.onOpen(l)}
                className="mt-0.5 block min-h-6 w-full"
              />
            ))}
          </section>
        ))}
      </div>
    </div>
  );
}
