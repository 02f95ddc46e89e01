import { useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { Excerpt } from "../score/Excerpt";
import type { Tone } from "../sound/player";
import { usePlayback } from "../sound/usePlayback";

const answers = [
  { id: "yes", name: "Yes" },
  { id: "nearly", name: "Nearly" },
  { id: "no", name: "No" },
  { id: "left", name: "Pass over" },
] as const;

/** One question of a placement: something to play, clap, sing, find or show, answered by one touch. */
export function Question(props: { question: Schemas["PlacementQuestion"]; tone: Tone; append: Append }) {
  const { question: q } = props;
  const playback = usePlayback();
  const [shown, setShown] = useState(!q.heard);
  const music = q.music;
  return (
    <section aria-label="Question" className="rounded-lg border border-line bg-sheet p-5 sm:p-7">
      <p className="fine">{q.name}</p>
      <h2 className="say text-[1.6rem]">{q.say}</h2>
      {q.excerpt &&
        (shown ? (
          <div className="mt-4">
            <Excerpt of={q.excerpt} at={playback.now?.at} label={`The notes for: ${q.name}`} />
          </div>
        ) : (
          <button type="button" className="quiet mt-3" onClick={() => setShown(true)}>
            Show the notes to me
          </button>
        ))}
      {music && (
        <button
          type="button"
          className={`press mt-4 min-w-32 ${q.heard ? "press-main" : ""}`}
          onClick={() =>
            playback.playing
              ? playback.stop()
              : playback.play({
                  notes: music.sounds,
                  beats: music.beats,
                  start: 0,
                  end: q.until,
                  tempo: music.tempo,
                  click: q.how === "clap",
                  tone: props.tone,
                })
          }
        >
          {playback.playing ? "Stop" : "Play it"}
        </button>
      )}
      <div className="mt-5 grid grid-cols-2 gap-3 sm:grid-cols-4">
        {answers.map((a) => (
          <button
            key={a.id}
            type="button"
            className={`press min-h-16 text-[1.15rem] ${a.id === "left" ? "border-line" : ""}`}
            onClick={() =>
              props.append.mutate([
                entry("probe", { skill: q.skill, outcome: a.id, ...(a.id === "yes" && { shown: true }) }),
              ])
            }
          >
            {a.name}
          </button>
        ))}
      </div>
      <p className="fine mt-3">{q.why}</p>
    </section>
  );
}
