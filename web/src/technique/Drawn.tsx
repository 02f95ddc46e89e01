import type { Schemas } from "../contract/client";
import { Chart } from "./Chart";
import { ChordShapes } from "./ChordShapes";
import { HandBoards } from "./HandBoards";
import { PatternTable } from "./PatternTable";
import { Strings } from "./Strings";

/** An exercise on its instrument: keys, or strings with what lies on them. */
export function Drawn(props: { exercise: Schemas["Exercise"]; sounding: Schemas["ExerciseNote"][] }) {
  const { exercise: e, sounding } = props;
  if (e.family === "keyboard")
    return (
      <>
        <HandBoards exercise={e} sounding={sounding} />
        {e.notes.some((n) => n.group > 0) && (
          <p className="fine mt-1">
            One line under the keys: the group of three fingers. Two lines: the group of four.
          </p>
        )}
      </>
    );
  if (e.family !== "bowed" && e.family !== "plucked")
    return e.chart.length > 0 ? <Chart exercise={e} sounding={sounding} /> : null;
  const held = e.chords.filter((c) => sounding.some((n) => n.at >= c.at - 0.01)).at(-1)?.name;
  return (
    <>
      {(e.shapes.length === 0 || e.type === "roll") && (
        <Strings exercise={e} sounding={sounding} held={held} />
      )}
      {e.shapes.length > 0 && <ChordShapes exercise={e} held={held} />}
      {e.patterns.length > 0 && <PatternTable patterns={e.patterns} />}
    </>
  );
}
