import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { shortDate, strandNames } from "../data/words";
import { above, columns, hearings, picture, secureGroups, spread, titleLines } from "./picture";

type Piece = Schemas["ProgressPiece"];

/** How tall a line of text is, in pixels. */
const line = 30;

/**
 * The way so far as one tall ladder against time: each piece stands from its beginning to the rung on which it was
 * cleared, as wide as the effort it asked for.
 */
export function WayPicture(props: {
  of: Schemas["Progress"];
  picked?: string;
  onPick: (material: string) => void;
}) {
  const p = props.of;
  const drawn = picture(p.from, p.to);
  const strands = columns(p.strands);
  const lanes = p.strands.reduce((n, s) => n + s.lanes, 0);
  return (
    <div className="overflow-x-auto">
      <div style={{ minWidth: 300 + 104 * lanes }}>
        <div className="sticky top-0 grid grid-cols-[3.4rem_minmax(0,1fr)_3rem_11rem] border-b border-line bg-paper">
          <span />
          <div className="relative h-9">
            {strands.map((s) => (
              <h3
                key={s.strand}
                className="absolute truncate pr-2 pt-2 text-base"
                style={{ left: percent(s.left), width: percent(s.width) }}
              >
                {strandNames[s.strand]}
              </h3>
            ))}
          </div>
          <h3 className="pt-2 text-base">Heard</h3>
          <h3 className="pl-3 pt-2 text-base">Secure</h3>
        </div>
        <div
          className="relative grid grid-cols-[3.4rem_minmax(0,1fr)_3rem_11rem]"
          style={{ height: drawn.height }}
        >
          <Time of={p} drawn={drawn} />
          <div className="relative">
            {strands.map((s) => (
              <i
                key={s.strand}
                aria-hidden="true"
                className="absolute inset-y-0 border-l border-line/70"
                style={{ left: percent(s.left) }}
              />
            ))}
            {p.plantings.map((x) => {
              const piece = p.pieces.find((q) => q.material === x.for);
              return (
                piece && (
                  <Thread key={x.text} of={x} left={laneLeft(strands, piece)} needed={x.needed} y={drawn.y} />
                )
              );
            })}
            {p.pieces.map((x) => (
              <Stretch
                key={x.material}
                piece={x}
                left={laneLeft(strands, x)}
                width={1 / lanes}
                y={drawn.y}
                to={p.to}
                picked={x.material === props.picked}
                onPick={() => props.onPick(x.material)}
              />
            ))}
          </div>
          <ol className="relative" aria-label="Hearings">
            {hearings(p.heard).map((h) => (
              <li
                key={h.date}
                className="absolute flex -translate-y-1/2 gap-0.5"
                style={{ top: drawn.y(h.date) }}
                title={h.list.map((x) => `${x.title}${x.solid ? "" : " (shaky)"}`).join(", ")}
              >
                {h.list.slice(0, 5).map((x) => (
                  <i
                    key={x.title}
                    className={`h-1.5 w-1.5 rounded-full border border-review ${x.solid ? "bg-review" : "bg-paper"}`}
                  />
                ))}
                <span className="sr-only">
                  {shortDate(h.date)}:{" "}
                  {h.list.map((x) => `${x.title}, ${x.solid ? "solid" : "shaky"}`).join("; ")}
                </span>
              </li>
            ))}
          </ol>
          <ol className="relative" aria-label="Skills that became secure">
            {secureGroups(p.skills, drawn.y, line).map((g) => (
              <li
                key={g.date}
                className="absolute left-3 right-0 flex -translate-y-2 gap-1.5 text-[0.8rem] leading-tight"
                style={{ top: g.y }}
                title={g.names.join(", ")}
              >
                <svg
                  viewBox="0 0 10 10"
                  width="9"
                  height="9"
                  aria-hidden="true"
                  className="mt-1 shrink-0 text-good"
                >
                  <path d="M5 0l5 5-5 5-5-5z" fill="currentColor" />
                </svg>
                <span className="line-clamp-2">{g.names.join(", ")}</span>
              </li>
            ))}
          </ol>
        </div>
      </div>
    </div>
  );
}

const percent = (share: number) => `${(100 * share).toFixed(3)}%`;

const laneLeft = (strands: ReturnType<typeof columns>, p: Piece) => {
  const s = strands.find((x) => x.strand === p.strand);
  return s ? s.left + (p.lane / s.lanes) * s.width : 0;
};

/** The steps by which a skill was planted, and the thread to the piece that needed it. */
function Thread(props: {
  of: Schemas["PlantedFor"];
  left: number;
  needed: string;
  y: (date: string) => number;
}) {
  const top = props.y(props.needed);
  const first = props.of.days[0] ?? props.needed;
  return (
    <span
      className="absolute w-2.5 border-l-2 border-dotted border-preview/70"
      style={{
        left: `calc(${percent(props.left)} + 6px)`,
        top,
        height: Math.max(0, props.y(first) - top),
      }}
      title={props.of.text}
    >
      {props.of.days.map((d) => (
        <i
          key={d}
          className="absolute -left-[6px] h-2.5 w-2.5 -translate-y-1/2 rounded-full border-2 border-preview bg-paper"
          style={{ top: props.y(d) - top }}
        />
      ))}
    </span>
  );
}

/** The months, the lessons, and the holidays across the whole picture. */
function Time({ of: p, drawn }: { of: Schemas["Progress"]; drawn: ReturnType<typeof picture> }) {
  return (
    <div className="border-r border-line">
      {p.breaks.map((b) => (
        <i
          key={b.from}
          aria-hidden="true"
          className="absolute inset-x-0 bg-fold/70"
          style={{ top: drawn.y(b.to), height: Math.max(3, drawn.y(b.from) - drawn.y(b.to)) }}
        />
      ))}
      {drawn.months.map((m) => (
        <span
          key={m.y}
          className={`figures absolute left-0 w-12 -translate-y-1/2 text-[0.78rem] leading-none ${m.year ? "font-semibold" : "text-soft"}`}
          style={{ top: m.y }}
        >
          {m.name}
        </span>
      ))}
      {p.lessons.map((d) => (
        <Link
          key={d}
          to={`/past/${p.student.ladder}?day=${d}`}
          aria-label={`Lesson of ${shortDate(d)}`}
          title={shortDate(d)}
          tabIndex={-1}
          className="absolute left-[2.5rem] flex h-2.5 w-3.5 -translate-y-1/2 items-center hover:bg-fold"
          style={{ top: drawn.y(d) }}
        >
          <i className="h-[2px] w-full bg-ink/60" />
        </Link>
      ))}
      <i
        aria-hidden="true"
        className="absolute inset-x-0 border-t-2 border-dashed border-working/60"
        style={{ top: above }}
      />
    </div>
  );
}

/** One piece: two rails from its beginning to the rung on which it was cleared; dashed where it rested, open while it is in work. */
function Stretch(props: {
  piece: Piece;
  left: number;
  width: number;
  y: (date: string) => number;
  to: string;
  picked: boolean;
  onPick: () => void;
}) {
  const { piece: x, y } = props;
  const open = x.to === "" || x.to > props.to;
  const top = open ? y(props.to) - 14 : y(x.to);
  const bottom = y(x.from);
  const wide = spread(x.leap);
  const lines = titleLines(bottom - top);
  const color = open ? "var(--color-working)" : "var(--color-review)";
  return (
    <button
      type="button"
      aria-pressed={props.picked}
      aria-label={`${x.title}, ${x.weeks}${open ? " so far" : ""}`}
      onClick={props.onPick}
      title={x.title}
      className="absolute flex items-start gap-1.5 rounded pl-4 text-left hover:bg-fold/80 aria-pressed:bg-fold"
      style={{
        left: percent(props.left),
        width: percent(props.width),
        top: top - 8,
        height: Math.max(14, bottom - top),
      }}
    >
      <svg
        aria-hidden="true"
        width={34}
        height={Math.max(18, bottom - top + 8)}
        className="shrink-0 overflow-visible"
      >
        <g transform="translate(16 8)" stroke={color} fill="none">
          <path d={`M${-wide / 2} 0V${bottom - top}M${wide / 2} 0V${bottom - top}`} strokeWidth="2" />
          {x.rests.map((r) => (
            <rect
              key={r.from}
              x={-wide / 2 - 2}
              width={wide + 4}
              y={Math.max(0, y(r.to) - top)}
              height={Math.max(0, y(r.from) - y(r.to))}
              fill="var(--color-paper)"
              stroke="var(--color-line)"
              strokeDasharray="2 3"
            />
          ))}
          {open ? (
            <circle cx="0" cy="0" r="5" fill={color} stroke="none" />
          ) : (
            <path d={`M${-wide / 2 - 4} 0H${wide / 2 + 4}`} strokeWidth={x.polished ? 7 : 5} />
          )}
        </g>
      </svg>
      {lines > 0 && (
        <span
          className={`min-w-0 overflow-hidden pt-0.5 text-[0.8rem] leading-[14px] ${open ? "font-semibold" : ""}`}
          style={{ display: "-webkit-box", WebkitBoxOrient: "vertical", WebkitLineClamp: lines }}
        >
          {x.title}
        </span>
      )}
    </button>
  );
}
