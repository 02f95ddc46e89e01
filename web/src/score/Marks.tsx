import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";

export interface Overlays {
  direction: boolean;
  interval: boolean;
  patterns: boolean;
  fresh: boolean;
}

type Mark = Schemas["MoveMark"];

const colours: Record<Mark["direction"], string> = {
  up: "var(--color-up)",
  down: "var(--color-down)",
  same: "var(--color-same)",
};
/** Rising strokes are whole, falling ones dashed, level ones dotted, so that colour is not needed. */
const dashes: Record<Mark["direction"], string | undefined> = { up: undefined, down: "11 7", same: "0.1 9" };

/** Pencil strokes and tints over an engraved score. */
export function Marks({
  piece,
  places,
  overlays,
}: {
  piece: Schemas["Piece"];
  places: Places;
  overlays: Overlays;
}) {
  const fresh = new Set(
    (piece.leap?.parts ?? [])
      .filter((p) => p.level === "new" || p.level === "planted")
      .flatMap((p) => p.bars),
  );
  return (
    <svg
      className="pointer-events-none absolute inset-0 overflow-visible"
      width={places.width}
      height={places.height}
      aria-hidden="true"
      data-testid="marks"
    >
      {overlays.fresh &&
        [...fresh].map((bar) => {
          const b = places.bar(bar);
          return (
            b && (
              <rect
                key={bar}
                data-fresh={bar}
                x={b.x + 2}
                y={b.y - 14}
                width={b.width - 4}
                height={b.height + 28}
                rx="8"
                fill="var(--color-preview)"
                fillOpacity="0.13"
                stroke="var(--color-preview)"
                strokeWidth="1.5"
                strokeDasharray="2 5"
              />
            )
          );
        })}
      {overlays.patterns &&
        piece.patterns.flatMap((p) =>
          p.bars.map((bar) => {
            const b = places.bar(bar);
            return (
              b && (
                <g key={bar}>
                  <path
                    d={`M${b.x + 6} ${b.y - 22}h${b.width - 12}`}
                    stroke="var(--color-review)"
                    strokeWidth="2"
                  />
                  <text x={b.x + 8} y={b.y - 27} fill="var(--color-review)" fontSize="15" fontWeight="700">
                    {p.letter}
                    {p.bars.length > 1 ? ` ×${p.bars.length}` : ""}
                  </text>
                </g>
              )
            );
          }),
        )}
      {(overlays.direction || overlays.interval) &&
        piece.marks.map((m) => (
          <Move key={`${m.staff} ${m.bar} ${m.at}`} mark={m} places={places} overlays={overlays} />
        ))}
    </svg>
  );
}

function Move({ mark, places, overlays }: { mark: Mark; places: Places; overlays: Overlays }) {
  const from = places.note(mark.fromBar, mark.staff, mark.fromAt, mark.fromPitch);
  const to = places.note(mark.bar, mark.staff, mark.at, mark.pitch);
  if (!from || !to) return null;
  const x1 = from.x + from.width + 1;
  const y1 = from.y + from.height / 2;
  const x2 = to.x - 1;
  const y2 = to.y + to.height / 2;
  // A stroke that turns to the next system is drawn as a short hint before its note.
  const wraps = x2 < x1;
  const d = wraps ? `M${x2 - 16} ${y2 + lean(mark.direction)}L${x2} ${y2}` : `M${x1} ${y1}L${x2} ${y2}`;
  return (
    <g data-direction={mark.direction}>
      {overlays.direction && (
        <path
          d={d}
          stroke={colours[mark.direction]}
          strokeWidth="4.5"
          strokeLinecap="round"
          strokeDasharray={dashes[mark.direction]}
          strokeOpacity="0.8"
          fill="none"
        />
      )}
      {overlays.interval && !wraps && mark.kind !== "same" && (
        <text
          x={(x1 + x2) / 2}
          y={Math.min(y1, y2) - 7}
          textAnchor="middle"
          fontSize="13"
          fontWeight="650"
          fill={colours[mark.direction]}
        >
          {mark.number}
        </text>
      )}
    </g>
  );
}

const lean = (d: Mark["direction"]) => (d === "up" ? 7 : d === "down" ? -7 : 0);
