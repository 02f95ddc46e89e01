import type { Schemas } from "../contract/client";
import { starts } from "./hand";

const looks: Record<Schemas["PlanSegment"]["layer"], string> = {
  frame: "bg-fold border-line",
  working: "bg-working border-working text-on-working",
  preview: "bg-paper border-preview border-[3px]",
  review: "bg-review border-review text-on-working",
};

/** A bar as long as the lesson: segments drawn to their minutes, by layer; what has gone is shaded. */
export function LessonBar(props: {
  segments: Schemas["PlanSegment"][];
  minutes: number;
  picked?: string;
  gone?: number;
  onPick: (id: string) => void;
}) {
  const { segments, minutes } = props;
  const at = starts(segments);
  const percent = (n: number) => `${(100 * n) / minutes}%`;
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
    <section aria-label="The lesson in minutes" tabIndex={0} className="mt-2 overflow-x-auto px-1 pt-1.5">
      {/* A minute stays wide enough to be touched. */}
      <div className="relative pb-6" style={{ minWidth: 24 * minutes }}>
        <ol aria-label="The lesson as a bar" className="relative h-16">
          {segments.map((s, i) => (
            <li
              key={s.id}
              className="absolute inset-y-0 px-px"
              style={{ left: percent(at[i] ?? 0), width: percent(s.minutes) }}
            >
              <button
                type="button"
                aria-pressed={s.id === props.picked}
                data-minutes={s.minutes}
                title={s.title}
                onClick={() => props.onPick(s.id)}
                className={`flex h-full w-full flex-col justify-center overflow-hidden rounded-md border-2 px-0.5 text-left sm:px-1.5 leading-tight aria-pressed:outline-3 aria-pressed:outline-offset-2 aria-pressed:outline-focus ${looks[s.layer]}`}
              >
                <span className={s.minutes >= 3 ? "line-clamp-2 text-[0.82rem]" : "sr-only"}>{s.title}</span>
                <span className="figures text-fine">
                  {s.minutes}
                  <span className="sr-only"> minutes</span>
                </span>
              </button>
            </li>
          ))}
        </ol>
        {props.gone !== undefined && (
          <div
            aria-hidden="true"
            className="pointer-events-none absolute left-0 top-0 h-16 border-r-[3px] border-cliff bg-paper/55"
            style={{ width: percent(Math.min(minutes, props.gone)) }}
          />
        )}
        <div aria-hidden="true" className="relative mt-1 h-4 border-t border-line">
          {Array.from({ length: Math.floor(minutes / 5) + 1 }, (_, i) => i * 5).map((m) => (
            <span
              key={m}
              className={`fine figures absolute ${m === 0 ? "" : m > minutes - 1 ? "-translate-x-full" : "-translate-x-1/2"}`}
              style={{ left: percent(m) }}
            >
              {m}
            </span>
          ))}
        </div>
      </div>
    </section>
  );
}
