import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";
import { spans } from "./spans";

type Chunk = Schemas["Chunk"];

/** Chunks as brackets under the staves: the smallest nearest, those joined from them below. */
export function ChunkBrackets(props: {
  piece: Schemas["Piece"];
  places: Places;
  /** How much further down the brackets stand, in pixels. */
  under: number;
  chosen?: Chunk;
  choose: (c: Chunk) => void;
}) {
  const { piece, places } = props;
  const leaves = piece.chunks.filter((c) => c.level === 0);
  const shown = piece.chunks.filter((c) => c.level <= (places.small ? 1 : 2));
  return shown.map((c) => {
    const chosen = props.chosen && props.chosen.start === c.start && props.chosen.end === c.end;
    const colour = chosen ? "var(--color-focus)" : c.level ? "var(--color-ahead)" : "var(--color-working)";
    return (
      <g
        key={`${c.level} ${c.start}`}
        className="pointer-events-auto cursor-pointer"
        data-chunk={c.where}
        data-level={c.level}
        onPointerDown={() => props.choose(c)}
      >
        {spans(piece, places, c.start, c.end).map((s) => {
          const y = s.y + s.height + props.under + (places.small ? 14 + 9 * c.level : 20 + 15 * c.level);
          const x1 = s.x + 5 + 2 * c.level;
          const x2 = s.x + s.width - 5 - 2 * c.level;
          return (
            <g key={`${s.x} ${s.y}`}>
              <rect x={x1} y={y - 14} width={Math.max(0, x2 - x1)} height="24" fill="transparent" />
              <path
                d={`${s.begins ? `M${x1} ${y - 8}V${y}` : `M${x1} ${y}`}H${x2}${s.ends ? `V${y - 8}` : ""}`}
                fill="none"
                stroke={colour}
                strokeWidth={c.level ? 1.4 : 2.6}
                strokeLinejoin="round"
              />
              {c.level === 0 && s.begins && (
                <text
                  x={x1 + 6}
                  y={y - 4}
                  fontSize="13"
                  fontWeight="700"
                  fill={colour}
                  stroke="var(--color-sheet)"
                  strokeWidth="4"
                  paintOrder="stroke"
                  className="figures"
                >
                  {leaves.indexOf(c) + 1}
                  {c.sameAs ? <tspan fontWeight="450"> = {sameNumber(leaves, c)}</tspan> : null}
                </text>
              )}
            </g>
          );
        })}
      </g>
    );
  });
}

const sameNumber = (leaves: Chunk[], c: Chunk) => leaves.findIndex((l) => l.from === c.sameAs) + 1;
