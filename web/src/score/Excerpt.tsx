import type { Schemas } from "../contract/client";

const turns = { up: -1, down: 1, same: 0 } as const;

/** The direction of a line over a note: rising, falling or level. */
function Sign({ x, y, direction }: { x: number; y: number; direction: "up" | "down" | "same" }) {
  const rise = 0.5 * turns[direction];
  return (
    <path
      data-sign={direction}
      d={
        direction === "same"
          ? `M${x - 0.9} ${y}H${x + 0.9}`
          : `M${x - 0.9} ${y - rise}L${x + 0.9} ${y + rise}m-0.9 0h0.9v${-0.9 * turns[direction]}`
      }
      stroke={`var(--color-${direction})`}
      strokeWidth="0.34"
      fill="none"
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}

/** The bars of a thing to do; the heads that sound are lit, and directions stand over them. */
export function Excerpt(props: {
  of: Schemas["Excerpt"];
  at: number | undefined;
  label: string;
  signs?: Schemas["HomeSign"][];
}) {
  const { of: e, at } = props;
  const before = at === undefined ? undefined : e.heads.filter((h) => h.at <= at + 1e-6).at(-1)?.at;
  const signs = (props.signs ?? []).flatMap((s) => {
    const head = e.heads.find((h) => h.staff === s.staff && Math.abs(h.at - s.at) < 1e-6);
    return head ? [{ ...s, x: head.x, y: Math.min(head.y - 2.4, head.y - head.below - 1) }] : [];
  });
  const above = signs.length > 0 ? 2.6 : 1.6;
  return (
    <svg
      viewBox={`-0.5 ${-above} ${e.width + 1} ${e.height + above + 1.6}`}
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
      {e.texts.map((t) => (
        <text
          key={`${t.x} ${t.y}`}
          x={t.x}
          y={t.y}
          fontSize={t.size}
          fontWeight="600"
          textAnchor="middle"
          fill="currentColor"
        >
          {t.text}
        </text>
      ))}
      {signs.map((s) => (
        <Sign key={`${s.x} ${s.y}`} x={s.x} y={s.y} direction={s.direction} />
      ))}
    </svg>
  );
}
