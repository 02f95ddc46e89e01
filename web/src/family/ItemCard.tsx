import { useLayoutEffect, useRef, useState } from "react";
import type { Schemas } from "../contract/client";
import { LayerMark } from "../parts/LayerMark";
import { Excerpt } from "../score/Excerpt";
import type { Tone } from "../sound/player";
import { layerOf } from "../week/kinds";
import { Beat, Metronome } from "./Beat";
import { Feel } from "./Feel";
import { PlayBar } from "./PlayBar";
import { StartPicture } from "./StartPicture";
import { useSay } from "./say";
import type { Item, Tick } from "./ticks";

type Hand = Schemas["HomeHand"];

/** One thing to do: where it begins, how it sounds, what each says, when it is good enough, and the tick. */
export function ItemCard(props: {
  item: Item;
  music: Schemas["FamilyMusic"] | undefined;
  excerpt: Schemas["Excerpt"] | undefined;
  name: string;
  tone: Tone;
  /** Why it cannot be ticked; empty when it can. */
  shut: string;
  done: Tick | undefined;
  /** The boxes that were tapped before, and how to keep them. */
  tapped: number;
  tap: (times: number) => void;
  onDone: (times: number, felt: Schemas["Felt"] | undefined) => void;
  onUndo: () => void;
  /** Goes on to the next thing; nothing where this is the last one. */
  onNext: (() => void) | undefined;
}) {
  const { item, done } = props;
  const { card } = item;
  const { say } = useSay();
  const [now, setNow] = useState<{ at: number; midi: number[] }>();
  const [times, setTimes] = useState(done?.times || props.tapped);
  const asked = item.times > 1;
  const { bar, low } = useLowBar();
  return (
    <article className="mt-3 rounded-2xl border border-line bg-sheet" aria-label={item.title}>
      <div className="p-3 sm:px-6">
        <p className="fine flex items-center gap-2">
          <LayerMark layer={layerOf(item.kind)} size={15} />
          {card.kind}
        </p>
        <h2 className="text-[1.45rem] leading-tight">
          {item.title}
          {card.where && <span className="font-normal"> · {card.where}</span>}
        </h2>
        {card.only && (
          <p className="text-lg">
            <strong>{card.only}</strong>
          </p>
        )}
        {card.book && <p className="fine">{card.book}</p>}
        {card.gap && <p className="mt-1 text-soft">{card.gap}</p>}
        {card.cue && (
          <p className="mt-3 rounded-xl border border-line bg-paper p-3 text-center font-head text-[2rem] leading-tight">
            {card.cue}
          </p>
        )}
        {card.hands.map((h) => (
          <Start key={h.side + h.start} hand={h} sounding={now?.midi ?? []} />
        ))}
        {card.good && (
          <p className="mt-2 border-l-4 border-good pl-3 leading-snug">
            <strong>{say("good")}</strong> {card.good}.
          </p>
        )}
        {props.music && item.end > item.start ? (
          <PlayBar item={item} music={props.music} tone={props.tone} tell={setNow} />
        ) : (
          card.gap && <Metronome beats={item.beats} />
        )}
        {card.tempo && (
          <p className="mt-2 text-center">
            <Beat words={card.tempo} beats={item.beats} />
          </p>
        )}
        {props.excerpt ? (
          <div className="mt-3">
            <Excerpt
              of={props.excerpt}
              at={now?.at}
              label={`${item.title} ${card.where}`}
              signs={item.signs}
            />
          </div>
        ) : (
          item.excerpt && <div className="mt-3 h-28" />
        )}
        {card.marks && <p className="mt-1 text-center">{card.marks}</p>}
        {card.say.length > 0 && (
          <div className="mt-2 text-center">
            <p className="fine">{say("say")}</p>
            {card.say.map((line, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines in the order in which they are said
              <p key={i} className="font-head text-[1.25rem] leading-snug">
                {line.hand && <span className="fine">{line.hand}: </span>}
                {line.words.join(" · ")}
              </p>
            ))}
          </div>
        )}
        <dl className="mt-4 grid grid-cols-[auto_1fr] gap-x-3 gap-y-2 text-lg leading-snug">
          {card.swap && <Line who={say("parent")} says={card.swap} />}
          {card.parent && <Line who={say("parent")} says={card.parent} />}
          {card.child && card.child !== card.parent && <Line who={props.name} says={card.child} />}
        </dl>
        {card.more && <p className="fine mt-2">{card.more}</p>}
        {item.goals.length > 1 && (
          <ul className="mt-3 leading-snug" aria-label={say("goals")}>
            {item.goals.map((goal) => (
              <li key={goal} className="border-l-4 border-focus pl-2">
                {goal}
              </li>
            ))}
          </ul>
        )}
        <p className="fine mt-1">{card.end}</p>
      </div>
      <div
        ref={bar}
        className={`${low ? "sticky bottom-0" : ""} rounded-b-2xl border-t border-line bg-sheet p-3 sm:px-6`}
      >
        {props.shut ? (
          <p className="say text-center">{props.shut}</p>
        ) : done ? (
          <div className="flex flex-wrap items-center justify-between gap-2">
            <p className="say text-good">
              {say("done")}
              {asked && done.times ? `, ${done.times} ×` : ""}
              {done.felt ? `, ${say(done.felt)}` : ""}.
            </p>
            <span className="flex gap-2">
              <button type="button" className="quiet" onClick={props.onUndo}>
                {say("back")}
              </button>
              {props.onNext && (
                <button type="button" className="press press-main" onClick={props.onNext}>
                  {say("next")}
                </button>
              )}
            </span>
          </div>
        ) : (
          <>
            {asked && (
              <div className="mb-2">
                <p className="fine text-center">{say(item.inRow ? "boxes.row" : "boxes")}</p>
                <div className={`mt-1 flex flex-wrap justify-center ${item.inRow ? "" : "gap-2"}`}>
                  {Array.from({ length: item.times }, (_, i) => (
                    <button
                      // biome-ignore lint/suspicious/noArrayIndexKey: boxes that only count
                      key={i}
                      type="button"
                      aria-pressed={i < times}
                      aria-label={say("time", { n: i + 1 })}
                      className="h-12 w-12 border-2 border-ink text-2xl leading-none text-good aria-pressed:bg-fold"
                      onClick={() => {
                        const count = i < times ? i : i + 1;
                        setTimes(count);
                        props.tap(count);
                      }}
                    >
                      {i < times ? "✓" : ""}
                    </button>
                  ))}
                </div>
              </div>
            )}
            <p className="fine mb-1 text-center" aria-hidden="true">
              {say("felt")}
            </p>
            <Feel onDone={(felt) => props.onDone(asked ? times : item.times, felt)} />
          </>
        )}
      </div>
    </article>
  );
}

/** A bar that stays in view while it takes at most a third of the height; with large letters it stands at the end of the card. */
function useLowBar() {
  const bar = useRef<HTMLDivElement>(null);
  const [low, setLow] = useState(true);
  useLayoutEffect(() => {
    const measure = () => setLow((bar.current?.offsetHeight ?? 0) * 3 <= innerHeight);
    measure();
    const watch = new ResizeObserver(measure);
    if (bar.current) watch.observe(bar.current);
    addEventListener("resize", measure);
    return () => {
      watch.disconnect();
      removeEventListener("resize", measure);
    };
  }, []);
  return { bar, low };
}

/** Which hand, which finger, which key: large, and shown. */
function Start({ hand, sounding }: { hand: Hand; sounding: number[] }) {
  const parts = [hand.hand, hand.finger, hand.key].filter(Boolean);
  return (
    <div className="mt-2 rounded-xl border border-line bg-paper p-2">
      <p className="flex flex-wrap items-baseline justify-center gap-x-3 text-center font-head text-[1.2rem] leading-tight empty:hidden">
        {parts.length > 0
          ? parts.map((p) => <span key={p}>{p}</span>)
          : hand.start && <span>{hand.start}</span>}
      </p>
      {hand.geo && <p className="text-center leading-tight text-soft">{hand.geo}</p>}
      <div className="mt-1">
        <StartPicture hand={hand} sounding={sounding} />
      </div>
      {hand.moves && <p className="fine mt-1 text-center">{hand.moves}</p>}
    </div>
  );
}

/** What somebody is told, as a script. */
function Line({ who, says }: { who: string; says: string }) {
  return (
    <>
      <dt className="fine pt-1">{who}</dt>
      <dd className="m-0">{says}</dd>
    </>
  );
}
