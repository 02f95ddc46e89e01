import type { Schemas } from "../contract/client";
import { isBlack, layOut, w } from "../piece/keyboard";
import { NeckPicture } from "./NeckPicture";

type Hand = Schemas["HomeHand"];

const tall = 104;

/** What lies under a hand: keys or strings with the fingers; where it begins is filled, and what sounds is lit. */
export function StartPicture({ hand, sounding }: { hand: Hand; sounding: number[] }) {
  const label = `${hand.start}; ${hand.touches.map((t) => (t.finger >= 0 ? `${t.name} ${t.finger}` : t.name)).join(", ")}`;
  if (hand.touches.length === 0) return null;
  if (hand.side === "part")
    return hand.touches.some((t) => t.string > 0) ? (
      <NeckPicture hand={hand} sounding={sounding} label={label} />
    ) : null;
  const { keys, whites, x } = layOut(hand.touches.map((t) => t.midi));
  const centre = (midi: number) => x(midi) + (isBlack(midi) ? 9 : w / 2);
  const y = (midi: number) => (isBlack(midi) ? 42 : 82);
  const on = (midi: number) => sounding.includes(midi);
  const fingered = hand.side === "either" ? [] : hand.touches;
  const used = new Map(hand.touches.map((t) => [t.midi, t]));
  const fill = (k: number) =>
    on(k)
      ? "var(--color-focus)"
      : used.get(k)?.first
        ? "var(--color-lit)"
        : isBlack(k)
          ? "#23302f"
          : "#fdf9f0";
  return (
    <svg
      viewBox={`-2 -2 ${whites.length * w + 4} ${tall + 4}`}
      className="block max-h-36 w-full"
      role="img"
      aria-label={label}
    >
      {[...whites, ...keys.filter(isBlack)].map((k) => (
        <rect
          key={k}
          data-on={on(k) || undefined}
          x={x(k)}
          y={0}
          width={isBlack(k) ? 18 : w}
          height={isBlack(k) ? 62 : tall}
          rx="3"
          fill={fill(k)}
          stroke="#5a635c"
        />
      ))}
      {fingered.map((t) => (
        <g key={`${t.midi}`}>
          <circle
            cx={centre(t.midi)}
            cy={y(t.midi)}
            r={t.first ? 13 : 10}
            fill={t.first ? "#1d6066" : "#fdf9f0"}
            stroke="#1d6066"
            strokeWidth="2"
          />
          {t.finger >= 0 && (
            <text
              x={centre(t.midi)}
              y={y(t.midi) + (t.first ? 6 : 5)}
              textAnchor="middle"
              fontSize={t.first ? 18 : 14}
              fontWeight="700"
              fill={t.first ? "#fdf9f0" : "#1d6066"}
            >
              {t.finger}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
