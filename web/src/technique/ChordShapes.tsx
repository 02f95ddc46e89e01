import type { Schemas } from "../contract/client";

/** Chords as the left hand sets them, strings from the lowest at the left; the one that sounds is lit. */
export function ChordShapes({ exercise: e, held }: { exercise: Schemas["Exercise"]; held?: string }) {
  return (
    <ul className="mt-3 flex flex-wrap gap-4">
      {e.shapes.map((s) => (
        <li key={s.name}>
          <Shape shape={s} strings={e.strings} on={s.name === held} />
        </li>
      ))}
    </ul>
  );
}

function Shape(props: {
  shape: Schemas["ChordShape"];
  strings: Schemas["Exercise"]["strings"];
  on: boolean;
}) {
  const { shape, strings } = props;
  const n = strings.length;
  const frets = Math.max(4, ...shape.frets);
  const x = (string: number) => 22 + (n - string) * 26;
  const y = (fret: number) => 44 + fret * 30;
  const words = shape.frets
    .map((f, i) =>
      f < 0
        ? `string ${i + 1} not played`
        : f === 0
          ? `string ${i + 1} open`
          : `string ${i + 1} fret ${f} finger ${shape.fingers[i]}`,
    )
    .join(", ");
  return (
    <svg
      viewBox={`0 0 ${x(1) + 24} ${y(frets) + 26}`}
      className={`h-56 rounded-lg ${props.on ? "bg-reach outline-2 outline-focus" : ""}`}
      role="img"
      aria-label={`${shape.name}: ${words}`}
    >
      <text
        x={(x(1) + x(n)) / 2}
        y="20"
        textAnchor="middle"
        fontSize="19"
        fontWeight="700"
        fill="var(--color-ink)"
      >
        {shape.name}
      </text>
      {Array.from({ length: frets + 1 }, (_, f) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: frets in their order
          key={f}
          d={`M${x(n)} ${y(f)}H${x(1)}`}
          stroke={f === 0 ? "var(--color-ink)" : "var(--color-line)"}
          strokeWidth={f === 0 ? 5 : 2}
        />
      ))}
      {strings.map((s, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: strings in their order
        <g key={i}>
          <path
            d={`M${x(i + 1)} ${y(0)}V${y(frets)}`}
            stroke="var(--color-soft)"
            strokeWidth={1.2 + i * 0.4}
          />
          <text x={x(i + 1)} y={y(frets) + 18} textAnchor="middle" fontSize="12" fill="var(--color-soft)">
            {s.name}
          </text>
        </g>
      ))}
      {shape.frets.map((f, i) =>
        f <= 0 ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: strings in their order
          <text key={i} x={x(i + 1)} y={y(0) - 8} textAnchor="middle" fontSize="14" fill="var(--color-soft)">
            {f < 0 ? "–" : "0"}
          </text>
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: strings in their order
          <g key={i}>
            <circle cx={x(i + 1)} cy={y(f) - 15} r="11" fill="var(--color-working)" />
            <text
              x={x(i + 1)}
              y={y(f) - 10}
              textAnchor="middle"
              fontSize="14"
              fontWeight="700"
              fill="var(--color-on-working)"
            >
              {shape.fingers[i]}
            </text>
          </g>
        ),
      )}
    </svg>
  );
}
