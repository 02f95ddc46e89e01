import type { Schemas } from "../contract/client";
import { minutes, weekdayOf } from "../data/words";

type Item = Schemas["WeekItem"];

const kindNames: Record<Item["kind"], string> = {
  look: "Look and say",
  chunk: "Small piece",
  join: "Join",
  whole: "The whole",
  spot: "Hard spot",
  again: "Again",
  review: "Play",
};

/** One day of the staircase: each practice day stands a step higher than the one before. */
export function WeekDay(props: { day: Schemas["WeekDay"]; step: number; steps: number; limit: number }) {
  const { day, step, steps } = props;
  const drop = `${Math.max(0, steps - step) * 0.85}rem`;
  return (
    <li
      className="min-w-0 md:pt-[var(--drop)] print:pt-[calc(var(--drop)*0.45)]"
      style={{ "--drop": drop } as React.CSSProperties}
    >
      <div className={`border-t-[5px] ${day.rest ? "border-dashed border-line" : "border-working"} pt-1.5`}>
        <h2 className="text-[1.1rem] print:text-[1.15em]">{weekdayOf(day.date)}</h2>
        {!day.rest && (
          <p className="figures fine print:text-[0.85em]">
            {minutes(day.minutes)} of {props.limit} min
          </p>
        )}
        {day.rest ? (
          <p className="fine">A day of rest.</p>
        ) : (
          <>
            {day.focus && (
              <p className="mt-1 border-b border-line pb-1.5 leading-tight print:text-[0.95em]">
                <span className="fine block print:text-[0.85em]">Listen for</span>
                <em>{day.focus}</em>
              </p>
            )}
            <ol>
              {day.items.map((item, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: steps of a day in their order
                <Step key={i} item={item} />
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

function Step({ item }: { item: Item }) {
  return (
    <li className="border-b border-line py-2 leading-snug print:py-1 print:leading-tight">
      <p className="fine print:text-[0.85em]">
        {kindNames[item.kind]} · {minutes(item.minutes)} min
      </p>
      <p className="font-semibold">{item.title}</p>
      {(item.kind !== "review" || item.where !== "the whole piece") && (
        <p>
          {item.where}
          {item.hand && <strong>, {item.hand} only</strong>}
        </p>
      )}
      {item.times > 0 && item.kind !== "review" && (
        <Boxes times={item.times} inRow={item.inRow} spot={item.kind === "spot"} />
      )}
      <p className="fine mt-0.5 leading-tight print:text-[0.88em]">{item.words}</p>
    </li>
  );
}

/** A box for each time to play; joined boxes ask for right ones in a row. */
function Boxes({ times, inRow, spot }: { times: number; inRow: boolean; spot: boolean }) {
  return (
    <p className="my-1 flex flex-wrap items-center gap-1">
      <span className="figures">{times} ×</span>
      <span className={`flex flex-wrap ${inRow ? "" : "gap-1"}`} aria-hidden="true">
        {Array.from({ length: times }, (_, i) => (
          <i
            // biome-ignore lint/suspicious/noArrayIndexKey: boxes that only count
            key={i}
            className={`h-4 w-4 border-[1.5px] ${spot ? "border-focus" : "border-ink"} print:h-[1.1em] print:w-[1.1em]`}
          />
        ))}
      </span>
      {inRow && <span className="fine">right in a row</span>}
    </p>
  );
}
