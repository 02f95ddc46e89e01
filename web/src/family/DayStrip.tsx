import type { Schemas } from "../contract/client";
import { useSay } from "./say";
import { doneOn, type Tick } from "./ticks";

/** The days of the week; a stroke for each thing, filled when it is done. */
export function DayStrip(props: {
  days: Schemas["FamilyDay"][];
  today: string;
  open: string | undefined;
  ticks: Tick[];
  onOpen: (day: string) => void;
}) {
  const { say, weekday, shortDay } = useSay();
  return (
    <nav aria-label={say("days")} className="mt-3 grid grid-cols-7 gap-1">
      {props.days.map((d) => {
        const done = d.items.filter((i) => doneOn(props.ticks, d.date, i.key)).length;
        const says = d.rest
          ? say("rest", { day: weekday(d.date) })
          : `${say("done")}: ${done} / ${d.items.length}`;
        return (
          <button
            key={d.date}
            type="button"
            aria-current={d.date === props.open ? "date" : undefined}
            onClick={() => props.onOpen(d.date)}
            className={`flex min-h-16 flex-col items-center justify-center rounded-lg border-2 aria-[current]:border-working aria-[current]:bg-reach ${d.date === props.today ? "border-ink" : "border-line"}`}
          >
            <span className={d.date === props.today ? "font-bold" : ""}>{shortDay(d.date)}</span>
            <span aria-hidden="true" className="mt-1 flex flex-wrap justify-center gap-0.5 px-0.5">
              {d.items.map((i) => (
                <i
                  key={i.key}
                  className={`h-2 w-2 rounded-full border border-working ${doneOn(props.ticks, d.date, i.key) ? "bg-working" : ""}`}
                />
              ))}
            </span>
            <span className="sr-only">
              {weekday(d.date)}, {says}
            </span>
          </button>
        );
      })}
    </nav>
  );
}
