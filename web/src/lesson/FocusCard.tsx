import type { Schemas } from "../contract/client";
import { markNames } from "../data/words";
import { MarkGlyph } from "../parts/MarkGlyph";

const marks: { mark: Schemas["Mark"]; says: string; key: string }[] = [
  { mark: "none", says: "not there yet", key: "1" },
  { mark: "part", says: "some of it is there", key: "2" },
  { mark: "full", says: "it holds through the piece", key: "3" },
];

/** The one thing to attend to now, with the three marks as large as the hand is busy. */
export function FocusCard(props: { point: Schemas["FocusPoint"]; onMark: (mark: Schemas["Mark"]) => void }) {
  const { point } = props;
  return (
    <section className="min-w-0 flex-1" aria-label="Focus point">
      <p className="font-head text-[1.5rem] sm:text-[1.9rem] leading-tight">{point.text}</p>
      <p className="fine mt-1 flex items-center gap-1.5">
        {point.history.length > 0 ? "Heard before:" : "Not heard on this piece yet."}
        {point.history.slice(-8).map((m, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: marks in their own order
          <MarkGlyph key={i} mark={m} size={15} />
        ))}
        {point.own && (point.streak ?? 0) > 0 && <span>· {point.streak} in a row at the first try</span>}
      </p>
      {point.marked && point.mark && (
        <p className="fine mt-1">In this lesson: {markNames[point.mark]}. Another mark takes its place.</p>
      )}
      <div className="mt-4 grid grid-cols-3 gap-2 sm:gap-3">
        {marks.map(({ mark, says, key }) => (
          <button
            key={mark}
            type="button"
            aria-pressed={point.mark === mark}
            // The second tap of a double one would mark the point that came into view with the first.
            onClick={(e) => e.detail < 2 && props.onMark(mark)}
            className="flex min-h-24 sm:min-h-32 flex-col items-center justify-center gap-1 rounded-xl border-2 border-line px-2 text-center hover:bg-fold aria-pressed:border-working aria-pressed:bg-reach"
          >
            <span className={mark === "full" ? "text-good" : "text-working"}>
              <MarkGlyph mark={mark} size={44} />
            </span>
            <span className="font-semibold">
              {markNames[mark]} <kbd className="max-sm:hidden">{key}</kbd>
            </span>
            <span className="fine leading-tight max-sm:sr-only">{says}</span>
          </button>
        ))}
      </div>
    </section>
  );
}
