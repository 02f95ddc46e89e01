import type { Schemas } from "../contract/client";
import { weekdayOf } from "../data/words";
import { LessonBlock } from "./LessonBlock";
import { columns, hours, pixels } from "./place";

/** A week as seven columns, the hours from top to bottom. */
export function WeekGrid(props: {
  days: Schemas["AgendaDay"][];
  today: string;
  onOpen: (l: Schemas["LessonDate"]) => void;
}) {
  const span = hours(props.days);
  const height = pixels(span.to - span.from);
  return (
    <div className="relative overflow-x-auto">
      <div
        className="grid min-w-[46rem]"
        style={{ gridTemplateColumns: `3rem repeat(${props.days.length}, minmax(0, 1fr))` }}
      >
        <div />
        {props.days.map((d) => (
          <div
            key={d.day}
            className={`border-b border-line px-1 pb-1 ${d.day === props.today ? "font-semibold" : ""}`}
          >
            <span className="text-[0.9rem]">{weekdayOf(d.day).slice(0, 3)}</span>{" "}
            <span className="figures">{Number(d.day.slice(8))}</span>
            <span className="block min-h-5 truncate text-fine text-review" title={d.holidays.join(", ")}>
              {d.holidays.join(", ")}
            </span>
          </div>
        ))}
        <div className="relative" style={{ height }}>
          {Array.from({ length: (span.to - span.from) / 60 }, (_, i) => span.from + 60 * i).map((m) => (
            <span key={m} className="figures fine absolute right-2" style={{ top: pixels(m - span.from) }}>
              {m / 60}:00
            </span>
          ))}
        </div>
        {props.days.map((d) => (
          <section
            key={d.day}
            aria-label={weekdayOf(d.day)}
            className={`relative border-l border-line ${d.holidays.length > 0 ? "bg-fold/60" : d.day === props.today ? "bg-sheet" : ""}`}
            style={{
              height,
              backgroundImage: "linear-gradient(to bottom, var(--color-line) 1px, transparent 1px)",
              backgroundSize: `100% ${pixels(60)}px`,
            }}
          >
            {columns(d.lessons).map(({ lesson, column, of }) => (
              <LessonBlock
                key={lesson.lesson}
                lesson={lesson}
                low={pixels(lesson.minutes) < 40}
                onOpen={() => props.onOpen(lesson)}
                className="absolute"
                style={{
                  top: pixels(lesson.at - span.from),
                  height: Math.max(30, pixels(lesson.minutes)) - 2,
                  left: `calc(${(100 * column) / of}% + 2px)`,
                  width: `calc(${100 / of}% - 4px)`,
                }}
              />
            ))}
          </section>
        ))}
      </div>
    </div>
  );
}
