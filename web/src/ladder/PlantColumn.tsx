import type { Schemas } from "../contract/client";

/** The width of the column, and what one skill takes of its height. */
export const plantWidth = 178;
export const plantRow = 62;
/** How many skills are drawn; the rest is counted. */
export const plantMost = 7;

/** How high above the line of now the nth skill stands. */
export const plantY = (n: number) => 30 + n * plantRow;

/** What is planted now for what comes later: the most urgent skill nearest to the line of now. */
export function PlantColumn(props: {
  view: Schemas["LadderView"];
  above: number;
  picked?: string;
  onPick: (skill: string) => void;
}) {
  const list = props.view.plantings.slice(0, plantMost);
  const more = props.view.plantings.length - list.length;
  return (
    <div className="absolute inset-y-0 left-0 border-r border-line/60" style={{ width: plantWidth }}>
      <h2 className="sticky top-0 z-10 bg-paper px-4 py-2 text-lg">To prepare</h2>
      <ol reversed>
        {list
          .map((p, i) => (
            <li
              key={p.skill}
              className="absolute inset-x-1"
              style={{ top: props.above - plantY(i) - plantRow / 2 }}
            >
              <button
                type="button"
                aria-pressed={p.skill === props.picked}
                onClick={() => props.onPick(p.skill)}
                className="flex w-full flex-col justify-center rounded px-2 text-left leading-tight hover:bg-fold aria-pressed:bg-fold"
                style={{ height: plantRow - 4 }}
              >
                <span className="line-clamp-2 text-[0.85rem] leading-[1.12]">{p.name}</span>
                <span className="flex items-center gap-1.5">
                  <Steps planting={p} />
                  <span className={`fine figures ${p.late > 0 ? "font-semibold text-cliff" : ""}`}>
                    {p.late > 0
                      ? `${p.late} ${p.late === 1 ? "lesson" : "lessons"} short`
                      : p.slack === 0
                        ? "just in time"
                        : `${p.slack} in hand`}
                  </span>
                </span>
              </button>
            </li>
          ))
          .reverse()}
      </ol>
      {more > 0 && (
        <p className="fine absolute left-3" style={{ top: props.above - plantY(list.length) }}>
          and {more} more
        </p>
      )}
    </div>
  );
}

/** The staircase of a skill: steps done filled, the one for the next lesson with a heavy ring, later ones hollow. */
function Steps({ planting: p }: { planting: Schemas["Planting"] }) {
  return (
    <svg width={p.of * 13} height="13" viewBox={`0 0 ${p.of * 13} 13`} role="img" className="text-preview">
      <title>{`${p.done} of ${p.of} steps done`}</title>
      {Array.from({ length: p.of }, (_, i) => i).map((i) => (
        <circle
          key={i}
          cx={6.5 + i * 13}
          cy="6.5"
          r="4.5"
          fill={i < p.done ? "currentColor" : "none"}
          stroke="currentColor"
          strokeWidth={i === p.done ? 2.8 : 1.4}
        />
      ))}
    </svg>
  );
}
