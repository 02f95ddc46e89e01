import { useEffect, useMemo, useState } from "react";
import type { Schemas } from "../contract/client";
import { Player } from "../sound/player";

const slowest = 30;
const fastest = 208;
/** What is being learned is heard slowly at first, as it is practised. */
const slow = 0.6;
const learned = (kind: Schemas["FamilyItem"]["kind"]) => kind === "review" || kind === "listen";

/** Plays what is to be practised, or the whole piece, at a chosen tempo, with a count-in and a click. */
export function PlayBar(props: {
  item: Schemas["FamilyItem"];
  music: Schemas["FamilyMusic"];
  tell: (at: number | undefined) => void;
}) {
  const { item, music, tell } = props;
  const player = useMemo(() => new Player(), []);
  const [playing, setPlaying] = useState(false);
  const [whole, setWhole] = useState(false);
  const [click, setClick] = useState(true);
  const [tempo, setTempo] = useState(() =>
    Math.max(slowest, Math.round(music.tempo * (learned(item.kind) ? 1 : slow))),
  );
  // Leaving ends the sound.
  useEffect(() => () => player.stop(), [player]);
  const stop = () => {
    player.stop();
    setPlaying(false);
    tell(undefined);
  };
  const end = Math.max(0, ...music.sounds.map((s) => s.at + s.length));
  const partial = item.end - item.start < end - 0.01;
  const play = () => {
    setPlaying(true);
    const all = whole || !partial;
    player.play(
      {
        notes:
          all || item.hands.length === 0
            ? music.sounds
            : music.sounds.filter((s) => item.hands.includes(s.staff)),
        beats: music.beats,
        start: all ? 0 : item.start,
        end: all ? end : item.end,
        tempo,
        click,
      },
      (now) => {
        tell(now?.at);
        if (!now) setPlaying(false);
      },
    );
  };
  const change = (to: number) => setTempo(Math.min(fastest, Math.max(slowest, to)));
  return (
    <section aria-label="Listen" className="mt-3">
      <div className="flex flex-wrap items-center justify-center gap-2">
        <button type="button" className="press press-main min-w-36 text-lg" onClick={playing ? stop : play}>
          {playing ? "Stop" : "Hear it"}
        </button>
        <span className="flex items-center gap-1">
          <button
            type="button"
            className="press min-w-touch px-2"
            aria-label="Slower"
            onClick={() => change(tempo - 4)}
          >
            −
          </button>
          <label className="flex items-center gap-1">
            <span className="sr-only">Tempo, beats a minute</span>
            <input
              type="number"
              inputMode="numeric"
              min={slowest}
              max={fastest}
              value={tempo}
              onChange={(e) => setTempo(e.target.valueAsNumber || slowest)}
              onBlur={() => change(tempo)}
              className="figures w-20 text-center text-lg"
            />
          </label>
          <button
            type="button"
            className="press min-w-touch px-2"
            aria-label="Faster"
            onClick={() => change(tempo + 4)}
          >
            +
          </button>
        </span>
      </div>
      <div className="mt-1 flex flex-wrap justify-center gap-x-5">
        <label className="flex min-h-touch items-center gap-2">
          <input
            type="checkbox"
            className="min-h-6 w-6 accent-working"
            checked={click}
            onChange={(e) => setClick(e.target.checked)}
          />
          count in and click
        </label>
        {partial && (
          <label className="flex min-h-touch items-center gap-2">
            <input
              type="checkbox"
              className="min-h-6 w-6 accent-working"
              checked={whole}
              onChange={(e) => setWhole(e.target.checked)}
            />
            the whole piece
          </label>
        )}
      </div>
    </section>
  );
}
