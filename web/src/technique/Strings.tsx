import type { Schemas } from "../contract/client";

type Note = Schemas["ExerciseNote"];

const step = 46;
const gap = 30;
const nut = 62;

/**
 * The strings with the nut at the left: what the left hand stops, and for a roll one
 * round of strokes where the right hand plucks, each with its finger. Strings that
 * sound are lit, with the finger that plucks them.
 */
export function Strings(props: { exercise: Schemas["Exercise"]; sounding: Note[]; held?: string }) {
  const { exercise: e, sounding } = props;
  const fretted = e.family === "plucked";
  const shape = e.shapes.find((s) => s.name === (props.held ?? e.shapes[0]?.name));
  const dots = shape
    ? shape.frets.flatMap((fret, i) =>
        fret > 0 ? [{ string: i + 1, above: fret, finger: shape.fingers[i] ?? 0, name: "" }] : [],
      )
    : e.under;
  const furthest = Math.max(e.type === "roll" ? 4 : 6, ...dots.map((d) => d.above)) + 1;
  const { round } = e;
  const x = (above: number) => nut + above * step;
  const lane = x(furthest) + 44;
  const width = round.length > 0 ? lane + round.length * 34 + 8 : x(furthest) + 10;
  const y = (s: number) => 24 + (s - 1) * gap;
  const height = y(e.strings.length) + 22;
  const on = (s: number) => sounding.find((n) => n.string === s);
  const now = sounding[0] ? Math.floor(sounding[0].at * 2 + 0.01) % Math.max(1, round.length) : -1;
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="max-h-72 w-full"
      role="img"
      aria-label={
        round.length > 0
          ? `one round: ${round.map((n) => `${n.pluck} on string ${n.string}`).join(", ")}`
          : dots.map((d) => `string ${d.string}, ${d.name} with finger ${d.finger}`).join("; ")
      }
    >
      <path d={`M${nut} 12V${height - 12}`} stroke="var(--color-ink)" strokeWidth="5" />
      {Array.from({ length: furthest }, (_, i) => i + 1).map((f) => (
        <path
          key={f}
          d={`M${x(f)} 14V${height - 14}`}
          stroke="var(--color-line)"
          strokeWidth={fretted ? 2.5 : 1}
          strokeDasharray={fretted ? undefined : "2 5"}
        />
      ))}
      {e.strings.map((s, i) => {
        const n = on(i + 1);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: strings in their order
          <g key={i} data-string={i + 1} data-on={n ? true : undefined}>
            <path
              d={`M${nut} ${y(i + 1)}H${width - 4}`}
              stroke={n ? "var(--color-focus)" : "var(--color-soft)"}
              strokeWidth={n ? 4.5 : 1.2 + i * 0.5}
            />
            <text x="2" y={y(i + 1) + 5} fontSize="13" fill="var(--color-soft)">
              {i + 1}
            </text>
            <text x="16" y={y(i + 1) + 5.5} fontSize="16" fontWeight="700" fill="var(--color-ink)">
              {s.name}
            </text>
          </g>
        );
      })}
      {dots.map((d) => {
        // A finger stands just behind its fret; on a bowed string it stands on the place itself.
        const cx = d.above === 0 ? nut - 15 : fretted ? x(d.above) - step / 2 : x(d.above);
        const lit = sounding.some((n) => n.string === d.string && n.above === d.above);
        const open = d.above === 0;
        return (
          <g key={`${d.string} ${d.above}`}>
            <circle
              cx={cx}
              cy={y(d.string)}
              r="11.5"
              fill={lit ? "var(--color-focus)" : open ? "var(--color-sheet)" : "var(--color-working)"}
              stroke="var(--color-working)"
              strokeWidth="2"
            />
            <text
              x={cx}
              y={y(d.string) + 5}
              textAnchor="middle"
              fontSize="14"
              fontWeight="700"
              fill={open && !lit ? "var(--color-working)" : "var(--color-on-working)"}
            >
              {d.finger}
            </text>
          </g>
        );
      })}
      {round.map((n, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: strokes in their order
        <g key={i} data-stroke={i === now ? "now" : undefined}>
          <rect
            x={lane + i * 34 - 12}
            y={y(n.string) - 12}
            width="24"
            height="24"
            rx="7"
            fill={i === now ? "var(--color-focus)" : "var(--color-preview)"}
          />
          <text
            x={lane + i * 34}
            y={y(n.string) + 5}
            textAnchor="middle"
            fontSize="15"
            fontWeight="700"
            fill="var(--color-on-working)"
          >
            {n.pluck}
          </text>
        </g>
      ))}
    </svg>
  );
}
