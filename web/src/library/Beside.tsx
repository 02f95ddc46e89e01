import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useBeside } from "../data/library";
import { leapSize } from "../data/words";
import { Problem, Waiting } from "../parts/Problem";
import { PathBetween } from "./PathBetween";

const row = 30;

/** Two books as paths through the same skills: a thread for each skill from where it enters one to where it enters the other. */
export function Beside(props: {
  source: string;
  other: string;
  player: string;
  players: Schemas["LibraryView"]["players"];
  close: () => void;
}) {
  const both = useBeside(props.source, props.other, props.player);
  const [picked, setPicked] = useState<{ side: "a" | "b"; at: number }>();
  if (both.isPending) return <Waiting />;
  if (both.error) return <Problem error={both.error} again={() => both.refetch()} />;
  const c = both.data;
  const height = Math.max(c.a.lines.length, c.b.lines.length) * row + 8;
  const touched = (s: Schemas["SkillInBoth"]) => picked && s[picked.side] === picked.at;
  const chosen = picked && c.shared.filter(touched);
  return (
    <section aria-label="Two books side by side">
      <div className="flex flex-wrap items-start justify-between gap-2">
        <p className="say min-w-0 flex-1 basis-96">{c.sentence}</p>
        <button type="button" className="press" onClick={props.close}>
          One book again
        </button>
      </div>
      <p className="fine" aria-live="polite">
        {chosen && chosen.length > 0
          ? `Enters there: ${chosen.map((s) => s.name).join(", ")}.`
          : "Tap a piece to follow its skills. A thread that crosses others comes in another order."}
      </p>
      <div className="mt-2 grid grid-cols-[1fr_minmax(4rem,12rem)_1fr]">
        <Column
          book={c.a}
          side="a"
          picked={picked?.side === "a" ? picked.at : -1}
          onPick={(at) => setPicked({ side: "a", at })}
        />
        <svg
          viewBox={`0 0 100 ${height}`}
          preserveAspectRatio="none"
          className="mt-[4.2rem] w-full"
          style={{ height }}
          aria-hidden="true"
        >
          {c.shared.map((s) => {
            const y1 = s.a * row + row / 2;
            const y2 = s.b * row + row / 2;
            return (
              <path
                key={s.skill}
                d={`M0 ${y1}C45 ${y1} 55 ${y2} 100 ${y2}`}
                fill="none"
                vectorEffect="non-scaling-stroke"
                stroke={touched(s) ? "var(--color-preview)" : "var(--color-working)"}
                strokeWidth={touched(s) ? 3 : 1.2}
                opacity={touched(s) ? 1 : 0.35}
              />
            );
          })}
        </svg>
        <Column
          book={c.b}
          side="b"
          picked={picked?.side === "b" ? picked.at : -1}
          onPick={(at) => setPicked({ side: "b", at })}
        />
      </div>
      <div className="mt-4 grid gap-6 md:grid-cols-2">
        <Only title={`Only in “${c.a.title}”`} list={c.onlyA} />
        <Only title={`Only in “${c.b.title}”`} list={c.onlyB} />
      </div>
      <PathBetween comparison={c} players={props.players} />
    </section>
  );
}

/** One book as a column of rungs, the leap as a stroke towards the middle. */
function Column(props: {
  book: Schemas["BookProfile"];
  side: "a" | "b";
  picked: number;
  onPick: (at: number) => void;
}) {
  const { book, side } = props;
  const most = Math.max(...book.lines.map((l) => l.leap.size), 1);
  return (
    <div className="min-w-0">
      <h2 className="h-[4.2rem] overflow-hidden text-lg leading-tight">
        {book.title}
        <span className="fine block font-body font-normal">{book.lines.length} pieces</span>
      </h2>
      <ol>
        {book.lines.map((l, i) => (
          <li key={l.material} style={{ height: row }}>
            <button
              type="button"
              aria-pressed={i === props.picked}
              onClick={() => props.onPick(i)}
              style={{ height: row }}
              className={`flex w-full items-center gap-2 rounded px-1 text-left text-[0.9rem] hover:bg-fold aria-pressed:bg-fold ${side === "a" ? "" : "flex-row-reverse"}`}
            >
              <span className="line-clamp-1 min-w-0 flex-1">{l.title}</span>
              <span
                className={`figures text-fine ${l.cliff && i > 0 ? "font-semibold text-cliff" : "text-soft"}`}
              >
                {leapSize(l.leap.size)}
              </span>
              <svg width="60" height="8" viewBox="0 0 60 8" aria-hidden="true" className="shrink-0">
                <rect
                  x={side === "a" ? 60 - (60 * l.leap.size) / most : 0}
                  y="1"
                  height="6"
                  rx="3"
                  width={Math.max(2, (60 * l.leap.size) / most)}
                  fill={l.cliff && i > 0 ? "var(--color-cliff)" : "var(--color-working)"}
                />
              </svg>
            </button>
          </li>
        ))}
      </ol>
    </div>
  );
}

function Only({ title, list }: { title: string; list: Schemas["SkillInBoth"][] }) {
  return (
    <section aria-label={title}>
      <h3>{title}</h3>
      <p>{list.length === 0 ? "Nothing." : `${list.map((s) => s.name).join(", ")}.`}</p>
    </section>
  );
}
