import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";

type Mark = Schemas["MoveMark"];

const colours: Record<Mark["direction"], string> = {
  up: "var(--color-up)",
  down: "var(--color-down)",
  same: "var(--color-same)",
};
/** Rising strokes are whole, falling ones dashed, level ones dotted, so that colour is not needed. */
const dashes: Record<Mark["direction"], string | undefined> = { up: undefined, down: "11 7", same: "0.1 9" };

/** A stroke from note to note: where the line goes, and how far. */
export function MoveMarks(props: { marks: Mark[]; places: Places; direction: boolean; interval: boolean }) {
  return props.marks.map((m) => <Move key={`${m.staff} ${m.bar} ${m.at}`} mark={m} {...props} />);
}

function Move(props: { mark: Mark; places: Places; direction: boolean; interval: boolean }) {
  const { mark, places } = props;
  const from = places.note(mark.fromBar, mark.staff, mark.fromAt, mark.fromPitch);
  const to = places.note(mark.bar, mark.staff, mark.at, mark.pitch);
  if (!from || !to) return null;
  const x1 = from.x + from.width + 1;
  const y1 = from.y + from.height / 2;
  const x2 = to.x - 1;
  const y2 = to.y + to.height / 2;
  // A stroke that turns to the next system is drawn as a short hint before its note.
  const wraps = x2 < x1;
  const d = wraps ? `M${x2 - 16} ${y2 + lean(mark.direction)}L${x2} ${y2}` : `M${x1} ${y1}L${x2} ${y2}`;
  return (
    <g data-direction={mark.direction}>
      {props.direction && (
        <path
          d={d}
          stroke={colours[mark.direction]}
          strokeWidth="4.5"
          strokeLinecap="round"
          strokeDasharray={dashes[mark.direction]}
          strokeOpacity="0.8"
          fill="none"
        />
      )}
      {props.interval && !wraps && mark.kind !== "same" && (
        <text
          x={(x1 + x2) / 2}
          y={Math.min(y1, y2) - 7}
          textAnchor="middle"
          fontSize="14"
          fontWeight={mark.number > 2 ? 750 : 500}
          fill={colours[mark.direction]}
        >
          {mark.number}
        </text>
      )}
    </g>
  );
}

const lean = (d: Mark["direction"]) => (d === "up" ? 7 : d === "down" ? -7 : 0);
