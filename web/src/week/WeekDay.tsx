import type { Schemas } from "../contract/client";
import { minutes, weekdayOf } from "../data/words";
import { LayerMark } from "../parts/LayerMark";
import { kindNames, layerOf } from "./kinds";

type Item = Schemas["WeekItem"];

/** One day of the staircase: each practice day stands a step higher than the one before. */
export function WeekDay(props: {
  day: Schemas["WeekDay"];
  step: number;
  steps: number;
  limit: number;
  busy: boolean;
  onDay: (practice: boolean) => void;
  onItem: (item: Item) => void;
}) {
  const { day, step, steps } = props;
  const drop = `${Math.max(0, steps - step) * 0.85}rem`;
  const name = weekdayOf(day.date);
  return (
    <li className="min-w-0 md:pt-[var(--drop)]" style={{ "--drop": drop } as React.CSSProperties}>
      <div className={`border-t-[5px] ${day.rest ? "border-dashed border-line" : "border-working"} pt-1.5`}>
        <div className="flex flex-col items-start">
          <div>
            <h2 className="text-[1.1rem]">{name}</h2>
            {!day.rest && (
              <p className="figures fine">
                {minutes(day.minutes)} of {props.limit} min
              </p>
            )}
          </div>
          <button
            type="button"
            className="quiet -ml-1.5 whitespace-nowrap px-1.5 text-[0.9rem]"
            disabled={props.busy}
            onClick={() => props.onDay(day.rest)}
          >
            {day.rest ? "Add practice" : "No practice"}
            <span className="sr-only"> on {name}</span>
          </button>
        </div>
        {day.rest ? (
          <p className="fine">A day of rest.</p>
        ) : (
          <>
            <Load minutes={day.minutes} limit={props.limit} />
            {day.focus && (
              <p className="mt-1 border-b border-line pb-1.5 leading-tight">
                <span className="fine block">Listen for</span>
                <em>{day.focus}</em>
              </p>
            )}
            <ol>
              {day.items.map((item, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: steps of a day in their order
                <Step key={i} item={item} onItem={props.onItem} />
              ))}
            </ol>
            {day.items.length === 0 && (
              <p className="fine mt-1">Nothing fits into the minutes of this day.</p>
            )}
          </>
        )}
      </div>
    </li>
  );
}

/** How full the day is; the end of the line is the hard limit. */
function Load({ minutes: m, limit }: { minutes: number; limit: number }) {
  return (
    <svg viewBox="0 0 100 4" preserveAspectRatio="none" className="mt-1 h-1.5 w-full" aria-hidden="true">
      <rect width="100" height="4" fill="var(--color-fold)" />
      <rect width={Math.min(100, (100 * m) / limit)} height="4" fill="var(--color-working)" />
    </svg>
  );
}

function Step({ item, onItem }: { item: Item; onItem: (item: Item) => void }) {
  return (
    <li className="border-b border-line">
      <button
        type="button"
        className="block w-full rounded py-2 text-left leading-snug hover:bg-fold"
        onClick={() => onItem(item)}
      >
        <span className="fine flex items-center gap-1.5">
          <LayerMark layer={layerOf(item.kind)} size={12} />
          {kindNames[item.kind]} · {minutes(item.minutes)} min
          {item.pinned && <span className="text-focus">· set by hand</span>}
        </span>
        <span className="block font-semibold">{item.title}</span>
        {item.where && (item.kind !== "review" || item.where !== "the whole piece") && (
          <span className="block">
            {item.where}
            {item.hand && <strong>, {item.hand} only</strong>}
          </span>
        )}
        {item.times > 0 && item.kind !== "review" && item.kind !== "listen" && (
          <Boxes times={item.times} inRow={item.inRow} spot={item.kind === "spot"} />
        )}
        {item.goals.length > 0 && (
          <span className="my-1 block leading-tight">
            {item.goals.map((goal) => (
              <span key={goal} className="block border-l-2 border-focus pl-1.5">
                {goal}
              </span>
            ))}
          </span>
        )}
        <span className="fine mt-0.5 block leading-tight">{item.words}</span>
      </button>
    </li>
  );
}

/** A box for each time to play; joined boxes ask for right ones in a row. */
function Boxes({ times, inRow, spot }: { times: number; inRow: boolean; spot: boolean }) {
  return (
    <span className="my-1 flex flex-wrap items-center gap-1">
      <span className="figures">{times} ×</span>
      <span className={`flex flex-wrap ${inRow ? "" : "gap-1"}`} aria-hidden="true">
        {Array.from({ length: times }, (_, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: boxes that only count
          <i key={i} className={`h-4 w-4 border-[1.5px] ${spot ? "border-focus" : "border-ink"}`} />
        ))}
      </span>
      {inRow && <span className="fine">right in a row</span>}
    </span>
  );
}
