import { useScore } from "../data/library";
import { Problem, Waiting } from "../parts/Problem";
import { useEngraving } from "./Engraving";
import { Marks, type MarksProps } from "./Marks";
import type { Overlay } from "./overlays";

/** The room between two lines of bars: where brackets under one meet fingers over the next, more. */
const roomFor = (on: Overlay[]) => (on.includes("chunks") && on.includes("fingers") ? 13 : 9);

/** The engraved score with the teacher's pencil laid over it. */
export function ScoreSheet(props: Omit<MarksProps, "places">) {
  const { piece } = props;
  const score = useScore(piece.material.id);
  const { holder, places, failed } = useEngraving(score.data, roomFor(props.on));
  if (score.error) return <Problem error={score.error} again={() => score.refetch()} />;
  return (
    <div className="relative">
      <p className="sr-only">
        The score of {piece.material.title}. {piece.sentence}
      </p>
      {!places && !failed && <Waiting />}
      {failed && <Problem error={failed} />}
      <div ref={holder} aria-hidden="true" />
      {places && <Marks {...props} places={places} />}
    </div>
  );
}
