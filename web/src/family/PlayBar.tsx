import { useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../contract/client";
import { Player, type Tone } from "../sound/player";
import { useSay } from "./say";

const slowest = 30;
const fastest = 208;

/**
 * Plays what is to be practised, or the whole piece, with a count-in and a click; the other part may play along. A
 * tempo that is changed while it sounds holds at once.
 */
export function PlayBar(props: {
  item: Schemas["FamilyItem"];
  music: Schemas["FamilyMusic"];
  tone: Tone;
  tell: (now: { at: number; midi: number[] } | undefined) => void;
}) {
  const { item, music, tell } = props;
  const { say } = useSay();
  const player = useMemo(() => new Player(), []);
  const [playing, setPlaying] = useState(false);
  const [whole, setWhole] = useState(false);
  const [together, setTogether] = useState(false);
  const [click, setClick] = useState(true);
  const [tempo, setTempo] = useState(() => Math.max(slowest, Math.round(item.quarters || music.tempo)));
  const now = useRef<number>(undefined);
  // Leaving ends the sound.
  useEffect(() => () => player.stop(), [player]);
  const stop = () => {
    player.stop();
    setPlaying(false);
    now.current = undefined;
    tell(undefined);
  };
  const end = Math.max(0, ...music.sounds.map((s) => s.at + s.length));
  const partial = item.end - item.start < end - 0.01;
  const others = item.staves.length > 0 && music.sounds.some((s) => !item.staves.includes(s.staff));
  const play = (from?: number, at = tempo, all = whole || !partial, duet = together) => {
    setPlaying(true);
    const alone = item.staves.length > 0 && !duet && !all;
    player.play(
      {
        notes: alone ? music.sounds.filter((s) => item.staves.includes(s.staff)) : music.sounds,
        beats: music.beats,
        start: from ?? (all ? 0 : item.start),
        end: all ? end : item.end,
        tempo: at,
        click: click && from === undefined,
        tone: props.tone,
      },
      (state) => {
        now.current = state?.at;
        tell(state);
        if (!state) setPlaying(false);
      },
    );
  };
  const change = (to: number) => {
    const held = Math.min(fastest, Math.max(slowest, to));
    setTempo(held);
    if (playing && now.current !== undefined) play(now.current, held);
  };
  return (
    <section aria-label={say("hear")} className="mt-3">
      <div className="flex flex-wrap items-center justify-center gap-2">
        <button
          type="button"
          className="press press-main min-w-28 text-lg"
          onClick={() => (playing ? stop() : play())}
        >
          {say(playing ? "stop" : "hear")}
        </button>
        <span className="flex items-center gap-1">
          <button
            type="button"
            className="press min-w-touch px-2"
            aria-label={say("slower")}
            onClick={() => change(tempo - 4)}
          >
            −
          </button>
          <label className="flex items-center gap-1">
            <span className="sr-only">{say("tempo")}</span>
            <input
              type="number"
              inputMode="numeric"
              min={slowest}
              max={fastest}
              value={tempo}
              onChange={(e) => setTempo(e.target.valueAsNumber || slowest)}
              onBlur={() => change(tempo)}
              className="figures w-16 px-1 text-center text-lg"
            />
          </label>
          <button
            type="button"
            className="press min-w-touch px-2"
            aria-label={say("faster")}
            onClick={() => change(tempo + 4)}
          >
            +
          </button>
        </span>
      </div>
      <div className="mt-1 flex flex-wrap justify-center gap-x-5">
        <Switch on={click} set={setClick} words={say("click")} />
        {others && <Switch on={together} set={setTogether} words={say("together")} />}
        {partial && <Switch on={whole} set={setWhole} words={say("whole")} />}
      </div>
    </section>
  );
}

function Switch({ on, set, words }: { on: boolean; set: (on: boolean) => void; words: string }) {
  return (
    <label className="flex min-h-touch items-center gap-2">
      <input
        type="checkbox"
        className="min-h-6 w-6 accent-working"
        checked={on}
        onChange={(e) => set(e.target.checked)}
      />
      {words}
    </label>
  );
}
