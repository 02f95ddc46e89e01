import { Link } from "react-router";
import { usePlanDay } from "../data/lesson";
import { Refused } from "../parts/Problem";

/** Plans every lesson of a day in one press, and says which is too full. */
export function PlanDay({ day, today }: { day: string; today: boolean }) {
  const plan = usePlanDay(day);
  return (
    <div>
      {!plan.data && (
        <button type="button" className="press" disabled={plan.isPending} onClick={() => plan.mutate()}>
          {today ? "Plan today" : "Plan this day"}
        </button>
      )}
      <Refused error={plan.error} />
      {plan.data && (
        <section aria-label="What is planned" aria-live="polite" className="border-l-4 border-preview pl-4">
          <p className="font-semibold">{plan.data.sentence}</p>
          <ul>
            {plan.data.lessons.map((l) => (
              <li key={l.ladder}>
                <Link className="underline underline-offset-4" to={`/plan/${l.ladder}?day=${day}`}>
                  {l.name}
                </Link>
                : {l.sentence}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
