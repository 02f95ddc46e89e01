import type { Schemas } from "../contract/client";

const step = 46;
const gap = 28;
const nut = 64;

/** The strings with the nut at the left, and the fingers on them; a finger on frets stands just behind its fret. */
export function NeckPicture(props: { hand: Schemas["HomeHand"]; sounding: number[]; label: string }) {
  const { hand, sounding } = props;
  const on = hand.touches.filter((t) => t.string > 0);
  const furthest = Math.max(4, ...on.map((t) => t.above)) + 1;
  const x = (above: number) => nut + above * step;
  const y = (s: number) => 20 + (s - 1) * gap;
  const height = y(hand.strings.length) + 20;
  return (
    <svg
      viewBox={`0 0 ${x(furthest) + 8} ${height}`}
      className="block max-h-44 w-full"
      role="img"
      aria-label={props.label}
    >
      <path d={`M${nut} 8V${height - 8}`} stroke="var(--color-ink)" strokeWidth="5" />
      {hand.frets &&
        Array.from({ length: furthest }, (_, i) => i + 1).map((f) => (
          <path key={f} d={`M${x(f)} 10V${height - 10}`} stroke="var(--color-line)" strokeWidth="2.5" />
        ))}
      {hand.strings.map((name, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: strings in their order
        <g key={i}>
          <path
            d={`M${nut} ${y(i + 1)}H${x(furthest) + 4}`}
            stroke={
              on.some((t) => t.string === i + 1 && t.first) ? "var(--color-working)" : "var(--color-soft)"
            }
            strokeWidth={1.2 + i * 0.5 + (on.some((t) => t.string === i + 1 && t.first) ? 1.5 : 0)}
          />
          <text x="4" y={y(i + 1) + 6} fontSize="17" fontWeight="700" fill="var(--color-ink)">
            {name}
          </text>
        </g>
      ))}
      {on.map((t) => {
        const cx = t.above === 0 ? nut - 22 : hand.frets ? x(t.above) - step / 2 : x(t.above);
        const lit = sounding.includes(t.midi);
        return (
          <g key={`${t.string} ${t.above}`}>
            <circle
              cx={cx}
              cy={y(t.string)}
              r={t.first ? 13 : 11}
              fill={lit ? "var(--color-focus)" : t.first ? "var(--color-working)" : "var(--color-sheet)"}
              stroke="var(--color-working)"
              strokeWidth="2"
            />
            {t.finger >= 0 && (
              <text
                x={cx}
                y={y(t.string) + 5.5}
                textAnchor="middle"
                fontSize={t.first ? 17 : 14}
                fontFamily={t.finger === 0 ? "var(--font-head)" : undefined}
                fontWeight="700"
                fill={lit || t.first ? "var(--color-on-working)" : "var(--color-working)"}
              >
                {t.finger}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
