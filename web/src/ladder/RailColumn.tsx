import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { strandNames } from "../data/words";
import type { Hand } from "./LadderDrawing";
import { gap, inSight, isAhead, type Laid, type LaidRail, placeAt, proposedY } from "./layout";
import { RungStroke } from "./RungStroke";
import { type Part, type Zoom, zooms } from "./zoom";

/** One strand as a rail: its rungs, the comfortable reach above the highest one begun, cliffs as broken strokes. */
export function RailColumn(
  props: Hand & {
    rail: LaidRail;
    part?: Part;
    above: number;
    left: number;
    width: number;
    sight: { from: number; to: number };
    drag?: { material: string; dy: number };
    zoom: Zoom;
    reach: number;
    ladder: string;
    proposed: Schemas["NextExercise"][];
  },
) {
  const { rail, above, drag, zoom } = props;
  const top = rail.rungs.at(-1)?.y ?? 0;
  const bottom = rail.rungs[0]?.y ?? 0;
  const reach = gap(props.reach, zooms[zoom]);
  const seen = inSight(rail, above, props.sight.from, props.sight.to);
  const dragged = rail.rungs.find((r) => r.rung.material === drag?.material);
  return (
    <div className="absolute inset-y-0" style={{ left: props.left, width: props.width }}>
      <h2 className="sticky top-0 z-10 flex items-baseline justify-between gap-2 bg-paper px-4 py-2 text-lg">
        {strandNames[rail.strand]}
        {(props.part?.above ?? 0) > 0 && (
          <span className="fine figures shrink-0 font-body">{props.part?.above} above</span>
        )}
      </h2>
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
        {seen.map((r) => r.below > 0 && r.rung.cliff && <Cliff key={r.rung.material} laid={r} top={top} />)}
      </svg>
      {props.proposed.length > 0 && (
        <ul aria-label="Proposed by the staircases">
          {props.proposed.map((p, i) => (
            <Proposed key={p.exercise} next={p} ladder={props.ladder} top={above - proposedY(rail, i)} />
          ))}
        </ul>
      )}
      <ol reversed>
        {[...seen].reverse().map((r) => (
          <RungStroke
            key={r.rung.material}
            laid={r}
            top={above - r.y}
            dates={zoom !== "whole"}
            dy={r === dragged ? drag?.dy : undefined}
            picked={r.rung.material === props.picked}
            onPick={props.onPick}
            onMove={props.onMove}
          />
        ))}
      </ol>
      {dragged && drag && <DropLine rail={rail} dragged={dragged} dy={drag.dy} above={above} />}
      {(props.part?.below ?? 0) > 0 && (
        <p className="fine figures absolute left-4" style={{ top: above - bottom + 24 }}>
          {props.part?.below} further down
        </p>
      )}
    </div>
  );
}

/** An exercise that the staircases propose: not yet a rung. */
function Proposed(props: { next: Schemas["NextExercise"]; ladder: string; top: number }) {
  const { next } = props;
  return (
    <li className="absolute inset-x-0" style={{ top: props.top - 17 }}>
      <Link
        to={`/technique?${new URLSearchParams({ ladder: props.ladder, exercise: next.exercise })}`}
        className="ml-2 flex h-[34px] items-center gap-2 rounded pr-1 hover:bg-fold"
        title={next.reasons.join(" ")}
      >
        <span aria-hidden="true" className="ml-1 w-9 shrink-0 border-t-[5px] border-dotted border-preview" />
        <span className="min-w-0 flex-1 leading-[1.08]">
          <span className="line-clamp-1 text-[0.92rem]">{next.title}</span>
          <span className="fine line-clamp-1">suggested: {next.step}</span>
        </span>
      </Link>
    </li>
  );
}

/** Where the rung would come to stand if it were let go. */
function DropLine(props: { rail: LaidRail; dragged: Laid; dy: number; above: number }) {
  const others = props.rail.rungs.filter((r) => isAhead(r.rung) && r !== props.dragged);
  const at = placeAt(props.rail, props.dragged.rung.material, props.dragged.y - props.dy);
  const under = others[at - 1];
  const over = others[at];
  const y = under && over ? (under.y + over.y) / 2 : under ? under.y + 22 : (over?.y ?? 0) - 22;
  return (
    <div
      aria-hidden="true"
      className="pointer-events-none absolute left-2 right-2 z-20 border-t-4 border-preview"
      style={{ top: props.above - y }}
    />
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
