import type { Schemas } from "../contract/client";
import type { Overlay } from "../score/overlays";

/** What the marks that are switched on mean. */
export function OverlayKey({ piece, on }: { piece: Schemas["Piece"]; on: Overlay[] }) {
  const show = (o: Overlay) => on.includes(o);
  const sure = piece.lines.every((l) => l.sure || l.positions.length === 0);
  return (
    <div className="fine mt-2 flex flex-wrap items-center gap-x-5 gap-y-1">
      {(show("direction") || show("interval")) &&
        (["up", "down", "same"] as const).map((d) => (
          <span key={d} className="inline-flex items-center gap-2">
            <svg width="30" height="14" aria-hidden="true">
              <path
                d={d === "up" ? "M3 11L27 3" : d === "down" ? "M3 3L27 11" : "M3 7H27"}
                stroke={`var(--color-${d})`}
                strokeWidth="4"
                strokeLinecap="round"
                strokeDasharray={d === "down" ? "9 6" : d === "same" ? "0.1 8" : undefined}
              />
            </svg>
            {d === "same" ? "stays" : d === "up" ? "rises" : "falls"}
          </span>
        ))}
      {show("direction") && <span>For chords the outer note of the hand is followed.</span>}
      {show("interval") && <span>2 is a step, 3 a skip, 4 and more are wider.</span>}
      {show("fingers") && (
        <span>
          Upright: printed or set. Slanted:{" "}
          {sure ? "proposed from the position" : "a suggestion, as the hand moves"}. Press one to correct it;
          arrow keys walk from one to the next.
        </span>
      )}
      {show("chunks") && (
        <span>Brackets: the smallest chunks, and under them what they join into. Press one to hear it.</span>
      )}
      {show("patterns") && <span>The same letter is the same bar. Press one to hear it.</span>}
      {show("hard") && (
        <span>
          Strokes over a bar: how many of the three heaviest dimensions lie highest there. None where it is
          alike all through.
        </span>
      )}
      {show("guides") && (
        <span>Ringed: not met in a cleared piece yet, with the guide note it is found from.</span>
      )}
    </div>
  );
}
