import type { Schemas } from "../contract/client";
import { LessonBar } from "../plan/LessonBar";
import { type Late, lateness } from "../plan/late";

/** The plan as a bar that runs with the clock; when it is late, what to shorten. */
export function LessonClock(props: {
  plan: Schemas["LessonPlan"];
  at: number;
  gone: number;
  onPick: (at: number) => void;
}) {
  const { plan, at, gone } = props;
  const left = plan.minutes - gone;
  const late = lateness(plan.segments, at, gone, plan.minutes);
  return (
    <div>
      <div className="flex items-baseline justify-between gap-4">
        <p className="figures shrink-0" role="timer">
          {left >= 0 ? `${left} of ${plan.minutes} minutes left` : `${-left} minutes over`}
        </p>
        {late.by > 0 && (
          <p aria-live="polite" className="text-cliff">
            {late.by} {late.by === 1 ? "minute" : "minutes"} late: {advice(late)}.
          </p>
        )}
      </div>
      <LessonBar
        segments={plan.segments}
        minutes={plan.minutes}
        gone={gone}
        picked={plan.segments[at]?.id}
        onPick={(id) => props.onPick(plan.segments.findIndex((s) => s.id === id))}
      />
    </div>
  );
}

/** What to shorten or to leave out, in a few words. */
function advice(late: Late): string {
  const parts = late.shorten.slice(0, 2).map((s) => `“${s.title}” in ${s.to}`);
  const [first, ...more] = late.leaveOut;
  if (first) parts.push(`leave out “${first}”${more.length > 0 ? ` and ${more.length} more` : ""}`);
  return parts.join(", ") || "close soon";
}
