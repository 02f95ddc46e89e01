import { useLayoutEffect, useMemo, useRef } from "react";
import type { Schemas } from "../contract/client";
import { leapSize, strandNames } from "../data/words";
import { LayerMark } from "../parts/LayerMark";
import { extent, freshness, gap, type Laid, type LaidRail, lay } from "./layout";

/** One tall sheet: rails side by side, rungs as strokes, the distance between two the size of the leap. */
export function LadderDrawing(props: {
  view: Schemas["LadderView"];
  picked?: string;
  onPick: (material: string) => void;
}) {
  const rails = useMemo(() => lay(props.view.rails), [props.view.rails]);
  const { above, under } = extent(rails);
  const scroller = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    // Begin with the line of now a little below the middle.
    const el = scroller.current;
    if (el) el.scrollTop = above - el.clientHeight * 0.58;
  }, [above]);
  return (
    <section
      ref={scroller}
      aria-label="Ladder"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
      tabIndex={0}
      className="min-w-0 flex-1 overflow-auto max-lg:max-h-[72dvh]"
    >
      <div className="relative flex min-w-full w-fit" style={{ height: above + under }}>
        <div
          aria-hidden="true"
          className="absolute inset-x-0 border-t-2 border-dashed border-working/50"
          style={{ top: above }}
        ></div>
        {rails.map((rail) => (
          <RailColumn key={rail.strand} rail={rail} above={above} {...props} />
        ))}
      </div>
    </section>
  );
}

function RailColumn(props: {
  rail: LaidRail;
  above: number;
  view: Schemas["LadderView"];
  picked?: string;
  onPick: (material: string) => void;
}) {
  const { rail, above } = props;
  const top = rail.rungs.at(-1)?.y ?? 0;
  const bottom = rail.rungs[0]?.y ?? 0;
  const reach = gap(props.view.reach);
  return (
    <div className="relative min-w-[12.4rem] flex-1">
      <h2 className="sticky top-0 z-10 bg-paper px-4 py-2 text-lg">{strandNames[rail.strand]}</h2>
      <div
        aria-hidden="true"
        className="absolute left-4 right-2 rounded-md bg-reach"
        style={{ top: above - rail.foot - reach, height: reach }}
      />
      <svg
        aria-hidden="true"
        className="absolute left-4 w-8"
        style={{ top: above - top - 14, height: top - bottom + 28 }}
        preserveAspectRatio="none"
        width="32"
        height={top - bottom + 28}
      >
        <path
          d={`M6 0V${top - bottom + 28}M26 0V${top - bottom + 28}`}
          stroke="var(--color-line)"
          strokeWidth="3"
          fill="none"
        />
        {rail.rungs.map(
          (r) => r.below > 0 && r.rung.cliff && <Cliff key={r.rung.material} laid={r} top={top} />,
        )}
      </svg>
      <ol reversed>
        {[...rail.rungs].reverse().map((r) => (
          <RungStroke
            key={r.rung.material}
            laid={r}
            top={above - r.y}
            picked={r.rung.material === props.picked}
            onPick={props.onPick}
          />
        ))}
      </ol>
    </div>
  );
}

/** A cliff: the rails between two rungs drawn as a broken, heavier stroke. */
function Cliff({ laid, top }: { laid: Laid; top: number }) {
  const y = top - laid.y + 14;
  const to = y + laid.below;
  let d = `M6 ${y + 6}`;
  for (let at = y + 6, side = 1; at < to - 10; at += 9, side = -side) d += `l${side * 5} 9`;
  return <path d={`${d}${d.replace("M6", "M26")}`} stroke="var(--color-cliff)" strokeWidth="3" fill="none" />;
}

const strokes: Record<Schemas["Rung"]["layer"], string> = {
  working: "h-[9px] rounded-sm bg-working",
  preview: "h-[9px] rounded-sm border-[2.5px] border-preview bg-paper",
  review: "h-[5px] rounded-sm bg-review",
  ahead: "h-[3px] rounded-sm bg-ahead",
};

function RungStroke(props: { laid: Laid; top: number; picked: boolean; onPick: (material: string) => void }) {
  const { rung, below } = props.laid;
  const opacity = rung.layer === "review" ? freshness(rung.recall) : 1;
  return (
    <li className="absolute inset-x-0" style={{ top: props.top - 17 }}>
      <button
        type="button"
        aria-pressed={props.picked}
        onClick={() => props.onPick(rung.material)}
        className={`group ml-2 flex h-[34px] w-[calc(100%-0.5rem)] items-center gap-2 rounded pr-1 text-left hover:bg-fold aria-pressed:bg-fold ${rung.layer === "working" ? "bg-paper font-semibold" : ""}`}
      >
        <span aria-hidden="true" className={`ml-1 w-9 shrink-0 ${strokes[rung.layer]}`} style={{ opacity }} />
        {rung.runDue ? <RunDue /> : rung.layer !== "ahead" && <LayerMark layer={rung.layer} size={14} />}
        <span
          className="line-clamp-2 min-w-0 flex-1 text-[0.92rem] leading-[1.05]"
          style={{ opacity: 0.4 + 0.6 * opacity }}
        >
          {rung.title}
        </span>
        <span className={`figures text-fine ${rung.cliff ? "font-semibold text-cliff" : "text-soft"}`}>
          <span className="sr-only">{rung.cliff ? "a cliff, leap " : "leap "}</span>
          {below > 0 || rung.layer !== "review" ? leapSize(rung.leap.size) : ""}
        </span>
      </button>
    </li>
  );
}

/** Stands in for the mark of a working rung that is ready for a run, as on Today. */
function RunDue() {
  return (
    <svg viewBox="0 0 20 20" width="14" height="14" className="shrink-0 text-working" role="img">
      <title>working piece, run due</title>
      <path d="M4 16L10 4l6 12z" fill="currentColor" />
    </svg>
  );
}
