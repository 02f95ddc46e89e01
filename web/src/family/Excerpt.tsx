import type { Schemas } from "../contract/client";

/** The bars of a chunk; the heads that sound are lit. */
export function Excerpt(props: { of: Schemas["Excerpt"]; at: number | undefined; label: string }) {
  const { of: e, at } = props;
  const before = at === undefined ? undefined : e.heads.filter((h) => h.at <= at + 1e-6).at(-1)?.at;
  return (
    <svg
      viewBox={`-0.5 -1.6 ${e.width + 1} ${e.height + 3.2}`}
      className="mx-auto block w-full"
      style={{ maxWidth: `${e.width * 0.9}rem` }}
      role="img"
      aria-label={props.label}
    >
      {at !== undefined &&
        e.heads
          .filter((h) => h.at === before)
          .map((h) => (
            <circle
              key={`${h.x} ${h.y}`}
              cx={h.x}
              cy={h.y}
              r="1.5"
              fill="var(--color-reach)"
              stroke="var(--color-working)"
              strokeWidth="0.3"
            />
          ))}
      <path d={e.shapes} fill="currentColor" />
    </svg>
  );
}
