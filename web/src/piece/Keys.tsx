import type { Schemas } from "../contract/client";
import { isBlack, layOut, w } from "./keyboard";

/** A keyboard with the five fingers of each hand on their keys. Right-hand fingers stand over, left-hand ones in a square. */
export function Keys(props: {
  hands: { line: Schemas["Line"]; position: Schemas["HandPosition"] }[];
  sounding: number[];
}) {
  const all = props.hands.flatMap((h) => h.position.keys);
  const { keys, whites, x } = layOut(all);
  const fingers = new Map<number, { finger: number; left: boolean }>();
  for (const { line, position } of props.hands)
    position.keys.forEach((k, i) => {
      fingers.set(k, { finger: line.hand === "left" ? 5 - i : i + 1, left: line.hand === "left" });
    });
  const words = props.hands
    .map(({ line, position }) => `${line.hand} hand, ${position.name}, MIDI keys ${position.keys.join(", ")}`)
    .join("; ");
  return (
    <svg
      viewBox={`-2 -2 ${whites.length * w + 4} 116`}
      className="mt-1 max-h-36 w-full"
      role="img"
      aria-label={words}
    >
      {[...whites, ...keys.filter(isBlack)].map((k) => {
        const dark = isBlack(k);
        const f = fingers.get(k);
        const on = props.sounding.includes(k);
        const middle = k === 60;
        return (
          <g key={k} data-key={k} data-on={on || undefined}>
            <rect
              x={x(k)}
              y="0"
              width={dark ? 18 : w}
              height={dark ? 66 : 110}
              rx="3"
              fill={on ? "var(--color-focus)" : dark ? "#23302f" : f ? "var(--color-key-held)" : "#fdf9f0"}
              stroke="#5a635c"
              strokeWidth="1"
            />
            {f && (
              <g>
                {f.left ? (
                  <rect
                    x={x(k) + (dark ? 9 : w / 2) - 10}
                    y={dark ? 40 : 80}
                    width="20"
                    height="20"
                    rx="4"
                    fill="#1d6066"
                  />
                ) : (
                  <circle cx={x(k) + (dark ? 9 : w / 2)} cy={dark ? 50 : 90} r="10.5" fill="#1d6066" />
                )}
                <text
                  x={x(k) + (dark ? 9 : w / 2)}
                  y={dark ? 55 : 95}
                  textAnchor="middle"
                  fontSize="14"
                  fontWeight="700"
                  fill="#fdf9f0"
                >
                  {f.finger}
                </text>
              </g>
            )}
            {middle && !f && <circle cx={x(k) + w / 2} cy="98" r="3" fill="#5a635c" />}
          </g>
        );
      })}
    </svg>
  );
}
