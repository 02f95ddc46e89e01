import { useState } from "react";
import type { Schemas } from "../contract/client";
import { LayerMark } from "../parts/LayerMark";
import { kindNames, layerOf } from "../week/kinds";
import { Excerpt } from "./Excerpt";
import { Feel } from "./Feel";
import { PlayBar } from "./PlayBar";
import type { Item, Tick } from "./ticks";

/** One thing to do, big: what, which bars, how often, and the tick. */
export function ItemCard(props: {
  item: Item;
  music: Schemas["FamilyMusic"] | undefined;
  /** Why it cannot be ticked; empty when it can. */
  shut: string;
  done: Tick | undefined;
  /** The boxes that were tapped before, and how to keep them. */
  tapped: number;
  tap: (times: number) => void;
  onDone: (times: number, felt: Schemas["Felt"] | undefined) => void;
  onUndo: () => void;
}) {
  const { item, done } = props;
  const [at, setAt] = useState<number>();
  const [times, setTimes] = useState(done?.times || props.tapped);
  const asked = item.times > 1;
  return (
    <article className="mt-4 rounded-2xl border border-line bg-sheet p-4 sm:p-6" aria-label={item.title}>
      <p className="fine flex items-center gap-2">
        <LayerMark layer={layerOf(item.kind)} size={15} />
        {kindNames[item.kind]}
      </p>
      <h2 className="text-[1.7rem] leading-tight">{item.title}</h2>
      {item.where && item.where !== "the whole piece" && <p className="text-xl">{item.where}</p>}
      {item.hand && <p className="text-xl font-bold">{item.hand} only</p>}
      {item.excerpt && (
        <div className="mt-3">
          <Excerpt of={item.excerpt} at={at} label={`The notes of ${item.where}`} />
        </div>
      )}
      {item.goals.length > 0 && (
        <ul className="mt-3 text-lg leading-snug" aria-label="Goals">
          {item.goals.map((goal) => (
            <li key={goal} className="border-l-4 border-focus pl-2">
              {goal}
            </li>
          ))}
        </ul>
      )}
      <p className="mt-3 text-lg leading-snug">{item.words}</p>
      {props.music && item.end > item.start && <PlayBar item={item} music={props.music} tell={setAt} />}
      <div className="mt-4 border-t border-line pt-4">
        {props.shut ? (
          <p className="say text-center">{props.shut}</p>
        ) : done ? (
          <div className="flex flex-wrap items-center justify-between gap-3">
            <p className="say text-good">
              Done{done.times ? `, ${done.times} ×` : ""}
              {done.felt ? `; it felt ${done.felt}` : ""}.
            </p>
            <button type="button" className="quiet" onClick={props.onUndo}>
              Take it back
            </button>
          </div>
        ) : (
          <>
            {asked && (
              <div>
                <p className="fine text-center">
                  Tap a box each time{item.inRow ? "; only right ones in a row count" : ""}.
                </p>
                <div className={`mt-1 flex flex-wrap justify-center ${item.inRow ? "" : "gap-2"}`}>
                  {Array.from({ length: item.times }, (_, i) => (
                    <button
                      // biome-ignore lint/suspicious/noArrayIndexKey: boxes that only count
                      key={i}
                      type="button"
                      aria-pressed={i < times}
                      aria-label={`Time ${i + 1}`}
                      className="h-12 w-12 border-2 border-ink text-2xl leading-none text-good aria-pressed:bg-fold"
                      onClick={() => {
                        const now = i < times ? i : i + 1;
                        setTimes(now);
                        props.tap(now);
                      }}
                    >
                      {i < times ? "✓" : ""}
                    </button>
                  ))}
                </div>
              </div>
            )}
            <Feel onDone={(felt) => props.onDone(asked ? times : item.times, felt)} />
          </>
        )}
      </div>
    </article>
  );
}
