import { useState } from "react";
import type { Schemas } from "../contract/client";
import { add, type Hand, putBack } from "./hand";
import { kindNames } from "./kinds";

/** What holds for this week only: minutes, learned pieces beside the picked ones, words, what was taken out. */
export function ForWeek(props: { week: Schemas["Week"]; busy: boolean; change: (h: Hand) => void }) {
  const { week, busy, change } = props;
  const hand = week.hand;
  const [words, setWords] = useState(hand.words ?? "");
  const adds = hand.adds ?? [];
  const set = new Set([...week.days.flatMap((d) => d.items.map((i) => i.material)), ...adds]);
  const more = week.learned.filter((l) => !set.has(l.material));
  return (
    <section aria-label="For this week">
      <h2 className="text-lg">For this week</h2>
      <div className="flex flex-wrap items-end gap-3">
        <label className="flex flex-col">
          <span className="fine">Minutes a day, at most</span>
          <select
            value={week.minutes}
            disabled={busy}
            onChange={(e) => {
              const m = Number(e.target.value);
              change({ ...hand, minutes: m === week.practice.minutes ? 0 : m });
            }}
          >
            {[...new Set([5, 10, 15, 20, 25, 30, 40, 50, 60, 90, week.practice.minutes, week.minutes])]
              .sort((a, b) => a - b)
              .map((m) => (
                <option key={m} value={m}>
                  {m}
                  {m === week.practice.minutes ? " (usual)" : ""}
                </option>
              ))}
          </select>
        </label>
        {more.length > 0 && (
          <label className="flex min-w-0 flex-col">
            <span className="fine">Add a learned piece</span>
            <select
              value=""
              disabled={busy}
              onChange={(e) => e.target.value && change(add(hand, e.target.value, true))}
            >
              <option value="">choose …</option>
              {more.map((l) => (
                <option key={l.material} value={l.material}>
                  {l.title}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {adds.length > 0 && (
        <ul className="mt-1">
          {adds.map((id) => {
            const title = week.learned.find((l) => l.material === id)?.title ?? "A piece";
            return (
              <li key={id} className="flex items-center justify-between gap-2 border-b border-line/60">
                {title}, added
                <button
                  type="button"
                  className="quiet"
                  disabled={busy}
                  onClick={() => change(add(hand, id, false))}
                >
                  Take away<span className="sr-only">: {title}</span>
                </button>
              </li>
            );
          })}
        </ul>
      )}
      <label className="mt-2 flex flex-col">
        <span className="fine">A word to the family</span>
        <input
          value={words}
          maxLength={600}
          placeholder="Sing it before you play it."
          onChange={(e) => setWords(e.target.value)}
          onBlur={() => words !== (hand.words ?? "") && change({ ...hand, words })}
        />
      </label>
      {week.dropped.length > 0 && (
        <ul className="mt-2" aria-label="Removed">
          {week.dropped.map((i) => (
            <li key={i.key} className="flex items-center justify-between gap-2 border-b border-line/60">
              <span>
                {kindNames[i.kind]}: {i.title} {i.where !== "the whole piece" && i.where}, removed
              </span>
              <button
                type="button"
                className="quiet"
                disabled={busy}
                onClick={() => change(putBack(hand, i.key))}
              >
                Put it back<span className="sr-only">: {i.title}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
