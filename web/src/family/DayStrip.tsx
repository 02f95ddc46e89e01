import type { Schemas } from "../contract/client";
import { useSay } from "./say";
import { doneOn, type Tick } from "./ticks";

/** A day as a small ladder: a rung for each thing, from the ground up; what is done is a full one. */
function Rungs({ done }: { done: boolean[] }) {
  if (done.length === 0) return null;
  const gap = Math.min(5, 26 / done.length);
  const height = gap * (done.length + 1);
  return (
    <svg viewBox={`0 0 26 ${height}`} width="26" height={height} aria-hidden="true" className="mt-0.5">
      <path d={`M4 0V${height}M22 0V${height}`} stroke="var(--color-line)" strokeWidth="2" />
      {done.map((full, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: rungs in their order
          key={i}
          d={`M4 ${height - gap * (i + 1)}H22`}
          stroke={full ? "var(--color-working)" : "var(--color-line)"}
          strokeWidth={full ? 3.4 : 1.4}
        />
      ))}
    </svg>
  );
}

/** The days of the week, each as its ladder. */
export function DayStrip(props: {
  days: Schemas["FamilyDay"][];
  today: string;
  open: string | undefined;
  ticks: Tick[];
  onOpen: (day: string) => void;
}) {
  const { say, weekday, shortDay } = useSay();
  return (
    <nav aria-label={say("days")} className="mt-2 grid grid-cols-7 gap-1">
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
            className={`flex min-h-14 flex-col items-center justify-center rounded-lg border-2 aria-[current]:border-working aria-[current]:bg-reach ${d.date === props.today ? "border-ink" : "border-line"}`}
          >
            <span className={d.date === props.today ? "font-bold" : ""}>{shortDay(d.date)}</span>
            <Rungs done={d.items.map((i) => doneOn(props.ticks, d.date, i.key) !== undefined)} />
            <span className="sr-only">
              {weekday(d.date)}, {says}
            </span>
          </button>
        );
      })}
    </nav>
  );
}
