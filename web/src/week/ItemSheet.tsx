import type { Schemas } from "../contract/client";
import { weekdayOf } from "../data/words";
import { Sheet } from "../parts/Sheet";
import { drop, free, type Hand, often, pin } from "./hand";
import { kindNames } from "./kinds";

const most = 20;

/** One thing of the week in the hand: another day, more or fewer times, or out. */
export function ItemSheet(props: {
  item: Schemas["WeekItem"] | undefined;
  week: Schemas["Week"];
  change: (h: Hand) => void;
  onClose: () => void;
}) {
  const { item, week } = props;
  if (!item) return null;
  const hand = week.hand;
  const set = (h: Hand) => {
    props.change(h);
    props.onClose();
  };
  const pinned = (hand.pins ?? []).find((p) => p.item === item.key);
  const changed = pinned || (hand.times ?? []).some((t) => t.item === item.key);
  const movable = item.kind !== "again";
  return (
    <Sheet
      open
      onOpenChange={(open) => !open && props.onClose()}
      title={`${kindNames[item.kind]}: ${item.title}`}
      says={[item.where, item.hand && `${item.hand} only`].filter(Boolean).join(", ")}
    >
      <p>{item.words}</p>
      {item.times > 0 && movable && item.kind !== "review" && item.kind !== "listen" && (
        <div className="mt-4 flex items-center gap-3">
          <span className="fine w-24">How often</span>
          <button
            type="button"
            className="press min-w-touch"
            aria-label="Once less"
            disabled={item.times <= 1}
            onClick={() => set(often(hand, item.key, item.times - 1))}
          >
            −
          </button>
          <strong className="figures min-w-8 text-center text-xl">{item.times} ×</strong>
          <button
            type="button"
            className="press min-w-touch"
            aria-label="Once more"
            disabled={item.times >= most}
            onClick={() => set(often(hand, item.key, item.times + 1))}
          >
            +
          </button>
        </div>
      )}
      {movable && (
        <fieldset className="mt-4 flex flex-wrap gap-1.5">
          <legend className="fine mb-1">{pinned ? "Its day" : "Give it a day of its own"}</legend>
          {week.days
            .filter((d) => !d.rest)
            .map((d) => (
              <button
                key={d.date}
                type="button"
                aria-pressed={pinned?.day === d.date}
                className="press px-3 aria-pressed:border-working aria-pressed:bg-reach aria-pressed:font-semibold"
                onClick={() => set(pin(hand, item.key, d.date))}
              >
                {weekdayOf(d.date)}
              </button>
            ))}
        </fieldset>
      )}
      <div className="mt-5 flex flex-wrap gap-2 border-t border-line pt-4">
        <button type="button" className="press" onClick={() => set(drop(hand, item.key))}>
          Remove from this week
        </button>
        {changed && (
          <button type="button" className="press" onClick={() => set(free(hand, item.key))}>
            Leave it to the program
          </button>
        )}
        <button type="button" className="quiet" onClick={props.onClose}>
          Close
        </button>
      </div>
    </Sheet>
  );
}
