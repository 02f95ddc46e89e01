import type { Schemas } from "../contract/client";

/** The strings of a cello or a ukulele with the places that the piece uses, seen with the nut at the left. */
export function Neck(props: {
  /** Open strings, string 1 first. */
  strings: number[];
  /** The semitones from the nut that the hand covers. */
  place: number[];
  fretted: boolean;
  used: Schemas["NoteFinger"][];
  sounding: number[];
}) {
  const { strings, place, used } = props;
  const open = (s: number) => strings[s - 1] ?? 0;
  const furthest = Math.max(7, ...place, ...used.map((f) => f.pitch - open(f.string ?? 1))) + 1;
  const step = 58;
  const x = (semitones: number) => 46 + semitones * step;
  const y = (s: number) => 18 + (s - 1) * 26;
  const height = y(strings.length) + 18;
  const words = used.map((f) => `string ${f.string}, ${f.name} with finger ${f.finger}`).join("; ");
  const first = place[0];
  const last = place[place.length - 1];
  return (
    <svg
      viewBox={`0 0 ${x(furthest) + 10} ${height}`}
      className="mt-1 max-h-44 w-full"
      role="img"
      aria-label={words || "the open strings"}
    >
      {first !== undefined && last !== undefined && (
        <rect
          x={props.fretted ? x(first) - step + 3 : x(first) - 24}
          y="2"
          width={props.fretted ? (last - first + 1) * step - 6 : (last - first) * step + 48}
          height={height - 4}
          rx="10"
          fill="var(--color-reach)"
          stroke="var(--color-working)"
          strokeDasharray="4 5"
        />
      )}
      <path d={`M${x(0)} 8V${height - 8}`} stroke="var(--color-ink)" strokeWidth="5" />
      {Array.from({ length: furthest }, (_, i) => i + 1).map((f) => (
        <path
          key={f}
          d={`M${x(f)} 10V${height - 10}`}
          stroke="var(--color-line)"
          strokeWidth={props.fretted ? 2.5 : 1}
          strokeDasharray={props.fretted ? undefined : "2 5"}
        />
      ))}
      {strings.map((midi, i) => (
        <g key={midi}>
          <path
            d={`M${x(0)} ${y(i + 1)}H${x(furthest)}`}
            stroke="var(--color-soft)"
            strokeWidth={1 + i * 0.6}
          />
          <text x="8" y={y(i + 1) + 5} fontSize="14" fill="var(--color-soft)">
            {i + 1}
          </text>
        </g>
      ))}
      {used.map((f) => {
        const semitones = f.pitch - open(f.string ?? 1);
        // A finger stands just behind its fret; on a cello it stands on the place itself.
        const cx = semitones === 0 ? x(0) - 15 : props.fretted ? x(semitones) - step / 2 : x(semitones);
        const on = props.sounding.includes(f.pitch);
        return (
          <g key={`${f.string} ${f.pitch}`} data-on={on || undefined}>
            <circle
              cx={cx}
              cy={y(f.string ?? 1)}
              r="11.5"
              fill={
                on ? "var(--color-focus)" : semitones === 0 ? "var(--color-sheet)" : "var(--color-working)"
              }
              stroke="var(--color-working)"
              strokeWidth="2"
            />
            <text
              x={cx}
              y={y(f.string ?? 1) + 5}
              textAnchor="middle"
              fontSize="14"
              fontWeight="700"
              fill={semitones === 0 && !on ? "var(--color-working)" : "var(--color-on-working)"}
            >
              {f.finger}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
