import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";
import type { Chosen } from "./overlays";
import { spans } from "./spans";

/** What was chosen, filled; where it comes again, outlined. */
export function Stretch(props: { piece: Schemas["Piece"]; places: Places; chosen: Chosen }) {
  const { piece, places, chosen } = props;
  return [chosen, ...chosen.again].map((c, i) =>
    spans(piece, places, c.start, c.end).map((s) => (
      <rect
        key={`${s.x} ${s.y}`}
        data-again={i > 0 || undefined}
        x={s.x + 1}
        y={s.y - 12}
        width={s.width - 2}
        height={s.height + 24}
        rx="7"
        fill={i === 0 ? "var(--color-focus)" : "none"}
        fillOpacity="0.16"
        stroke="var(--color-focus)"
        strokeWidth={i === 0 ? 0 : 2}
      />
    )),
  );
}

/** A line where the sound is. */
export function Playhead({ piece, places, now }: { piece: Schemas["Piece"]; places: Places; now: number }) {
  const bar = piece.barTimes.findIndex((t) => now >= t.start - 1e-6 && now < t.start + t.length - 1e-6);
  const t = piece.barTimes[bar];
  const box = places.bar(bar + 1);
  if (!t || !box) return null;
  const x = box.x + (box.width * (now - t.start)) / t.length;
  return (
    <path
      d={`M${x} ${box.y - 14}V${box.y + box.height + 14}`}
      stroke="var(--color-focus)"
      strokeWidth="2.5"
      strokeLinecap="round"
    />
  );
}
