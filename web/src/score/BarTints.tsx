import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";

type Pattern = Schemas["Pattern"];

/** The tints of repeated bars; the letter says the same, so that colour is not needed. */
const tints = 6;
const tint = (i: number) => `var(--color-tint-${i % tints})`;

const likeWords = (p: Pattern) =>
  !p.like
    ? ""
    : p.how === "other rhythm"
      ? `${p.like} in other rhythm`
      : `${p.like} ${(p.steps ?? 0) > 0 ? "higher" : "lower"}`;

/** Equal bars tinted and lettered, and the bars that hold something new. */
export function BarTints(props: {
  piece: Schemas["Piece"];
  places: Places;
  patterns: boolean;
  fresh: boolean;
  choose: (p: Pattern, bar: number) => void;
}) {
  const { piece, places } = props;
  const fresh = new Set(
    (piece.leap?.parts ?? [])
      .filter((p) => p.level === "new" || p.level === "planted")
      .flatMap((p) => p.bars),
  );
  const repeated = piece.patterns.filter((p) => p.bars.length > 1);
  return (
    <>
      {props.patterns &&
        piece.patterns.flatMap((p) =>
          p.bars.map((bar) => {
            const b = places.bar(bar);
            const at = repeated.indexOf(p);
            return (
              b && (
                <g
                  key={bar}
                  className="pointer-events-auto cursor-pointer"
                  data-pattern={p.letter}
                  onPointerDown={() => props.choose(p, bar)}
                >
                  <rect
                    x={b.x + 1}
                    y={places.lineTop(bar) - 20}
                    width={b.width - 2}
                    height={b.height + 36 + b.y - places.lineTop(bar)}
                    rx="6"
                    fill={at < 0 ? "transparent" : tint(at)}
                  />
                  <text
                    x={b.x + b.width - 6}
                    y={places.lineTop(bar) - 27}
                    textAnchor="end"
                    fill="var(--color-ink)"
                    fontSize="16"
                    fontWeight={at < 0 ? 450 : 750}
                  >
                    {p.letter}
                    <tspan fontSize="11.5" fontWeight="500" fill="var(--color-soft)" dx="4">
                      {p.bars.length > 1 ? `×${p.bars.length}` : likeWords(p)}
                    </tspan>
                  </text>
                </g>
              )
            );
          }),
        )}
      {props.fresh &&
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
                fillOpacity="0.1"
                stroke="var(--color-preview)"
                strokeWidth="1.5"
                strokeDasharray="2 5"
              />
            )
          );
        })}
    </>
  );
}
