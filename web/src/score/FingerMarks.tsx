import type { KeyboardEvent } from "react";
import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";

type Finger = Schemas["NoteFinger"];

const shown = (f: Finger) => (f.finger < 0 ? "?" : String(f.finger));

/**
 * Fingers over or under their notes. Those that are printed always stand there; with all of them come the
 * proposed ones and the hand's moves between positions, and each can be pressed to correct it.
 */
export function FingerMarks(props: {
  piece: Schemas["Piece"];
  places: Places;
  all: boolean;
  correct?: (f: Finger) => void;
}) {
  const { piece, places } = props;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a group of marks in a drawing
    <svg
      className="pointer-events-none absolute inset-0 overflow-visible"
      width={places.width}
      height={places.height}
      role="group"
      aria-label="Fingers"
      data-testid="fingers"
      onKeyDown={walk}
    >
      {piece.lines.map((l, line) => (
        <g key={l.staff}>
          {props.all &&
            l.positions
              .slice(1)
              .map((p) => <Move key={p.start} piece={piece} places={places} line={l} position={p} />)}
          {stacked(l.fingers.filter((f) => props.all || f.given)).map(({ f, level, chord }, i) => (
            <Mark
              key={`${f.bar} ${f.at} ${f.pitch}`}
              piece={piece}
              line={l}
              f={f}
              level={level}
              chord={chord}
              places={places}
              first={line === 0 && i === 0}
              correct={props.all ? props.correct : undefined}
            />
          ))}
        </g>
      ))}
    </svg>
  );
}

/** The arrow keys walk from finger to finger, so that the marks are one stop on the way through the page. */
function walk(e: KeyboardEvent<SVGSVGElement>) {
  const step = { ArrowRight: 1, ArrowLeft: -1 }[e.key];
  if (!step) return;
  const marks: Element[] = [...e.currentTarget.querySelectorAll("[data-finger]")];
  const next = marks[marks.indexOf(e.target as Element) + step];
  if (next instanceof SVGElement) {
    e.preventDefault();
    next.focus();
  }
}

/** The notes of a chord have their fingers one over the other. */
function stacked(fingers: Finger[]) {
  const out: { f: Finger; level: number; chord: Finger[] }[] = [];
  for (const f of fingers) {
    const last = out.at(-1);
    const chord = last && last.f.bar === f.bar && last.f.at === f.at ? last.chord : [];
    out.push({ f, level: chord.length, chord });
    chord.push(f);
  }
  return out;
}

function Mark(props: {
  piece: Schemas["Piece"];
  line: Schemas["Line"];
  f: Finger;
  level: number;
  /** The notes struck with it, itself among them. */
  chord: Finger[];
  places: Places;
  /** The mark that the tab key reaches. */
  first: boolean;
  correct?: (f: Finger) => void;
}) {
  const { f, line, places } = props;
  const b = places.note(f.bar, f.staff, f.at, f.pitch);
  const staff = places.staff(f.bar, f.staff);
  if (!b || !staff) return null;
  const below = line.hand === "left";
  const x = b.x + b.width / 2;
  const heads = props.chord.map((n) => places.note(n.bar, n.staff, n.at, n.pitch) ?? b);
  // Under the left hand the lowest finger stands lowest.
  const y = below
    ? Math.max(staff.y + staff.height, ...heads.map((h) => h.y + h.height)) +
      19 +
      15 * (props.chord.length - 1 - props.level)
    : Math.min(staff.y, ...heads.map((h) => h.y)) - 9 - 15 * props.level;
  const kind = f.own ? "set by you" : f.given ? "printed" : "proposed";
  const label = `${props.piece.barLabels[f.bar - 1] ?? f.bar}`;
  const mark = (
    <>
      <rect x={x - 12} y={y - 17} width="24" height="24" rx="6" fill="transparent" />
      {f.own && (
        <circle cx={x} cy={y - 5} r="10" fill="none" stroke="var(--color-working)" strokeWidth="1.8" />
      )}
      <text
        x={x}
        y={y}
        textAnchor="middle"
        fontSize="15"
        fontWeight={f.given ? 750 : 450}
        fontStyle={f.given ? undefined : "italic"}
        fill={f.given ? "var(--color-ink)" : "var(--color-working)"}
      >
        {shown(f)}
      </text>
    </>
  );
  const press = props.correct;
  if (!press) return <g>{mark}</g>;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button within a drawing
    <g
      role="button"
      tabIndex={props.first ? 0 : -1}
      className="pointer-events-auto cursor-pointer"
      data-finger={shown(f)}
      aria-label={`Bar ${label}, finger ${shown(f)}, ${kind}: change it`}
      onClick={() => press(f)}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          press(f);
        }
      }}
    >
      {mark}
    </g>
  );
}

/** The hand moves: a light line before the first note of the new position, with its name. */
function Move(props: {
  piece: Schemas["Piece"];
  places: Places;
  line: Schemas["Line"];
  position: Schemas["HandPosition"];
}) {
  const { position: p, line, places } = props;
  const first = line.fingers.find((f) => {
    const t = props.piece.barTimes[f.bar - 1];
    return t && Math.abs(t.start + f.at - p.start) < 1e-6;
  });
  const b = first && places.note(first.bar, first.staff, first.at, first.pitch);
  const staff = first && places.staff(first.bar, first.staff);
  if (!b || !staff) return null;
  const x = b.x - 7;
  const below = line.hand === "left";
  const y = below ? staff.y + staff.height + 37 : places.lineTop(first.bar) - 44;
  return (
    <g>
      <path
        d={`M${x} ${staff.y - 4}V${staff.y + staff.height + 4}`}
        stroke="var(--color-working)"
        strokeWidth="1.5"
        strokeDasharray="4 4"
      />
      <text
        x={x}
        y={y}
        fontSize="12.5"
        fill="var(--color-working)"
        stroke="var(--color-sheet)"
        strokeWidth="4"
        paintOrder="stroke"
      >
        → {p.name}
      </text>
    </g>
  );
}
