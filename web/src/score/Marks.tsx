import type { Schemas } from "../contract/client";
import { BarTints } from "./BarTints";
import { ChunkBrackets } from "./ChunkBrackets";
import { chooseChunk, choosePattern } from "./choose";
import type { Places } from "./engraver";
import { FingerMarks } from "./FingerMarks";
import { GuideMarks, NoteNames } from "./GuideMarks";
import { HardBars } from "./HardBars";
import { MoveMarks } from "./MoveMarks";
import type { Chosen, Overlay } from "./overlays";
import { Playhead, Stretch } from "./Stretch";

export interface MarksProps {
  piece: Schemas["Piece"];
  places: Places;
  on: Overlay[];
  chosen?: Chosen;
  choose: (c: Chosen) => void;
  /** Where the sound is, in quarter notes from the start. */
  now?: number;
  /** Asks for another finger at a note. */
  correct?: (f: Schemas["NoteFinger"]) => void;
}

/** Pencil strokes and tints over an engraved score. What is pressed on it can also be reached as text below it. */
export function Marks({ piece, places, on, chosen, choose, now, correct }: MarksProps) {
  const show = (o: Overlay) => on.includes(o);
  // What stands under the staves pushes the brackets down.
  const under =
    (show("names") ? 18 : 0) +
    (show("guides") ? 16 : 0) +
    (show("fingers")
      ? Math.max(0, ...piece.lines.map((l) => (l.hand === "left" ? (l.shifts.length > 0 ? 32 : 18) : 0)))
      : 0);
  return (
    <>
      <svg
        className="pointer-events-none absolute inset-0 overflow-visible"
        width={places.width}
        height={places.height}
        aria-hidden="true"
        data-testid="marks"
      >
        {chosen && chosen.kind !== "all" && <Stretch piece={piece} places={places} chosen={chosen} />}
        {show("hard") && <HardBars hard={piece.hardBars} places={places} />}
        {(show("patterns") || show("fresh")) && (
          <BarTints
            piece={piece}
            places={places}
            patterns={show("patterns")}
            fresh={show("fresh")}
            choose={(pattern, bar) => choose(choosePattern(piece, pattern, bar))}
          />
        )}
        {show("chunks") && (
          <ChunkBrackets
            piece={piece}
            places={places}
            under={under}
            chosen={chosen?.chunk}
            choose={(c) => choose(chooseChunk(piece, c))}
          />
        )}
        {(show("direction") || show("interval")) && (
          <MoveMarks
            marks={piece.marks}
            places={places}
            direction={show("direction")}
            interval={show("interval")}
          />
        )}
        {show("names") && <NoteNames piece={piece} places={places} />}
        {show("guides") && <GuideMarks piece={piece} places={places} />}
        {now !== undefined && <Playhead piece={piece} places={places} now={now} />}
      </svg>
      <FingerMarks piece={piece} places={places} all={show("fingers")} correct={correct} />
    </>
  );
}
