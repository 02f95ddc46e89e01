import type { Schemas } from "../contract/client";
import { isBlack, layOut, w } from "../piece/keyboard";
import { Keys, tall } from "../technique/KeyDrawing";
import { NeckPicture } from "./NeckPicture";

type Hand = Schemas["HomeHand"];

/** The key from which places are counted, as a MIDI pitch. */
const middleC = 60;

/** What lies under a hand: keys or strings with the fingers; where it begins is filled, and what sounds is lit. */
export function StartPicture({ hand, sounding }: { hand: Hand; sounding: number[] }) {
  const label = `${hand.start}; ${hand.touches.map((t) => (t.finger >= 0 ? `${t.name} ${t.finger}` : t.name)).join(", ")}`;
  if (hand.touches.length === 0) return null;
  if (hand.side === "part")
    return hand.touches.some((t) => t.string > 0) ? (
      <NeckPicture hand={hand} sounding={sounding} label={label} />
    ) : null;
  const held = hand.touches.map((t) => t.midi);
  const inSight = held.some((k) => Math.abs(k - middleC) <= 2 * 12);
  const { keys, whites, x } = layOut(inSight ? [...held, middleC] : held);
  const centre = (midi: number) => x(midi) + (isBlack(midi) ? 9 : w / 2);
  const y = (midi: number) => (isBlack(midi) ? 42 : 82);
  const fingered = hand.side === "either" ? [] : hand.touches;
  const first = hand.touches.filter((t) => t.first).map((t) => t.midi);
  return (
    <svg
      viewBox={`-2 -2 ${whites.length * w + 4} ${tall + 4 + (inSight ? 42 : 0)}`}
      className="block max-h-36 w-full"
      role="img"
      aria-label={label}
    >
      <Keys keys={keys} whites={whites} x={x} y={0} shift={0} sounding={sounding} marked={first} />
      {inSight && (
        <g fill="#23302f">
          <path d={`M${centre(middleC) - 8} ${tall + 10}l8 -8l8 8z`} />
          <text
            x={Math.min(Math.max(centre(middleC), 80), whites.length * w - 80)}
            y={tall + 38}
            textAnchor="middle"
            fontSize="28"
          >
            {hand.middle}
          </text>
        </g>
      )}
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
