import { isBlack, w } from "../piece/keyboard";

/** How long a white key is in the drawing. */
export const tall = 104;

/** One keyboard; keys that sound are lit, and in another colour those that are marked. */
export function Keys(props: {
  keys: number[];
  whites: number[];
  x: (midi: number) => number;
  y: number;
  shift: number;
  sounding: number[];
  marked?: number[];
}) {
  return [...props.whites, ...props.keys.filter(isBlack)].map((k) => (
    <rect
      key={k}
      data-on={props.sounding.includes(k + props.shift) || undefined}
      x={props.x(k)}
      y={props.y}
      width={isBlack(k) ? 18 : w}
      height={isBlack(k) ? 62 : tall}
      rx="3"
      fill={
        props.sounding.includes(k + props.shift)
          ? "var(--color-focus)"
          : props.marked?.includes(k)
            ? "var(--color-lit)"
            : isBlack(k)
              ? "#23302f"
              : "#fdf9f0"
      }
      stroke="#5a635c"
    />
  ));
}

/** A finger: a circle for the right hand, a square for the left. */
export function Finger({
  x,
  y,
  left,
  finger,
  lit,
}: {
  x: number;
  y: number;
  left: boolean;
  finger: number | undefined;
  lit: boolean;
}) {
  const fill = lit ? "#b4530a" : "#1d6066";
  return (
    <g>
      {left ? (
        <rect x={x - 10} y={y - 10} width="20" height="20" rx="4" fill={fill} />
      ) : (
        <circle cx={x} cy={y} r="10.5" fill={fill} />
      )}
      <text x={x} y={y + 5} textAnchor="middle" fontSize="14" fontWeight="700" fill="#fdf9f0">
        {finger}
      </text>
    </g>
  );
}
