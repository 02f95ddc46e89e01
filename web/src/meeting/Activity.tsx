import { useEffect, useMemo, useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { Player } from "../sound/player";

interface Doing {
  activity: Schemas["MeetingActivity"];
  level: number;
  came: string[];
  /** The entry of what came last, which can be taken back; empty for none. */
  last: string;
  append: Append;
}

/** One activity of a first meeting, large, with what to say. */
export function Activity(props: Doing) {
  const a = props.activity;
  return (
    <section aria-label={a.name} className="rounded-lg border border-line bg-sheet p-5 sm:p-7">
      <p className="fine">
        {a.part}, about {a.minutes} minutes
      </p>
      <h2 className="text-[1.7rem]">{a.name}</h2>
      <Attempt {...props} />
    </section>
  );
}

/** One try of an activity: what to say, what is played, what came of it by one touch. */
export function Attempt(props: Doing) {
  const { activity: a, level } = props;
  const [text, setText] = useState("");
  const player = useMemo(() => new Player(), []);
  useEffect(() => () => player.stop(), [player]);
  const attempt = a.tries.find((t) => t.level === level);
  const play = () => {
    if (!attempt) return;
    const claps = a.kind === "rhythm" || a.kind === "beat";
    player.play(
      {
        notes: attempt.sounds.map((s) => ({ ...s, midi: claps ? 74 : s.midi })),
        beats: [],
        start: 0,
        end: Math.max(...attempt.sounds.map((s) => s.at + s.length)),
        tempo: 84,
        click: false,
        tone: claps ? "percussion" : "keyboard",
      },
      () => {},
    );
  };
  const came = (outcome: string) => {
    props.append.mutate([
      entry("meeting", {
        goal: a.id,
        outcome,
        ...(a.tries.length > 0 && { step: Math.max(1, level) }),
        ...(text.trim() && { text: text.trim() }),
      }),
    ]);
    setText("");
  };
  return (
    <>
      <p className="say mt-1 text-[1.25rem]">“{a.say}”</p>
      {attempt && (
        <div className="mt-4 flex flex-wrap items-center gap-4">
          <button type="button" className="press press-main min-w-40 text-lg" onClick={play}>
            Play it
          </button>
          <Picture sounds={attempt.sounds} claps={a.kind === "rhythm" || a.kind === "beat"} />
          <span className="fine">
            step {level} of {a.tries.length}: {attempt.words}
          </span>
        </div>
      )}
      <p className="mt-5">What came of it?</p>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {a.outcomes.map((o) => (
          <button
            key={o.id}
            type="button"
            className="press min-h-16 justify-start px-5 text-left text-[1.15rem]"
            onClick={() => came(o.id)}
          >
            {o.name}
          </button>
        ))}
      </div>
      <label className="mt-4 block">
        <span className="fine">your words, kept with the next touch</span>
        <input
          className="w-full"
          value={text}
          maxLength={300}
          onChange={(e) => setText(e.target.value)}
          placeholder="what you saw or heard"
        />
      </label>
      {props.came.length > 0 && (
        <p className="fine mt-3">
          So far: {props.came.join("; ")}.{props.last && <TakeBack of={props.last} append={props.append} />}
        </p>
      )}
    </>
  );
}

/** A touch that was a slip. */
export function TakeBack({ of, append }: { of: string; append: Append }) {
  return (
    <button
      type="button"
      className="quiet"
      onClick={() => append.mutate([entry("correction", { corrects: of })])}
    >
      Take the last one back
    </button>
  );
}

/** What is played: tones as a line by height, claps as strokes by length. */
function Picture({ sounds, claps }: { sounds: Schemas["SoundNote"][]; claps: boolean }) {
  const end = Math.max(...sounds.map((s) => s.at + s.length));
  const low = Math.min(...sounds.map((s) => s.midi));
  const y = (midi: number) => (claps ? 20 : 34 - (midi - low) * 3.4);
  return (
    <svg
      viewBox={`0 0 ${end * 26 + 6} 42`}
      className="h-12"
      role="img"
      aria-label={`${sounds.length} sounds`}
    >
      {sounds.map((s) => (
        <rect
          key={s.at}
          x={3 + s.at * 26}
          y={y(s.midi) - 5}
          width={Math.max(8, s.length * 26 - 5)}
          height="10"
          rx="5"
          fill="var(--color-working)"
        />
      ))}
    </svg>
  );
}
