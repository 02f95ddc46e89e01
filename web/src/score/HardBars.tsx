import type { Places } from "./engraver";

/** One to three strokes over the bars where a piece is hardest, so many as dimensions lie highest there. */
export function HardBars({ hard, places }: { hard: number[]; places: Places }) {
  return hard.map((n, i) => {
    const bar = i + 1;
    const b = n > 0 ? places.bar(bar) : undefined;
    return (
      b && (
        <g key={`hard ${bar}`} data-hard={bar}>
          {[0, 1, 2].slice(0, n).map((stroke) => (
            <rect
              key={stroke}
              x={b.x + 4}
              y={places.lineTop(bar) - 24 - 6 * stroke}
              width={b.width - 8}
              height="4"
              rx="2"
              fill="var(--color-cliff)"
              fillOpacity={0.5 + 0.25 * (n - 1)}
            />
          ))}
        </g>
      )
    );
  });
}
