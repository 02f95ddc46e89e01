import { useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../contract/client";
import { chooseAll, chooseChunk, chooseMotif, choosePattern } from "../score/choose";
import type { Chosen } from "../score/overlays";
import { Player } from "../sound/player";

export interface Now {
  midi: number[];
  at: number;
}

/** Hears the chosen stretch and names where it comes again. */
export function Listen(props: {
  piece: Schemas["Piece"];
  chosen: Chosen;
  choose: (c: Chosen) => void;
  tell: (now: Now | undefined) => void;
}) {
  const { piece, chosen, choose, tell } = props;
  const player = useMemo(() => new Player(), []);
  const [playing, setPlaying] = useState(false);
  const [tempo, setTempo] = useState(() => Math.round(Math.min(208, Math.max(40, piece.tempo || 80))));
  const [click, setClick] = useState(false);
  const stop = () => {
    player.stop();
    setPlaying(false);
    tell(undefined);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: leaving the screen ends the sound
  useEffect(() => () => player.stop(), []);
  const play = (c: Chosen) => {
    setPlaying(true);
    player.play(
      { notes: piece.sounds, beats: piece.beats, start: c.start, end: c.end, tempo, click },
      (now) => {
        tell(now);
        if (!now) setPlaying(false);
      },
    );
  };
  const whole = chosen.kind === "all";
  // What is chosen is heard at once, but not the whole piece on arrival.
  const first = useRef(true);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another choice plays
  useEffect(() => {
    if (first.current) first.current = false;
    else if (!whole) play(chosen);
    else stop();
  }, [chosen]);
  return (
    <section aria-label="Listen" className="mt-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <button
          type="button"
          className="press press-main min-w-32"
          onClick={() => (playing ? stop() : play(chosen))}
        >
          {playing ? "Stop" : "Hear it"}
        </button>
        <p className="min-w-0 flex-1 basis-48">
          <strong>{chosen.title}</strong>
          <span className="fine" aria-live="polite">
            {chosen.again.length > 0
              ? ` comes again at ${chosen.again.map((a) => a.words).join(", ")}`
              : whole
                ? ""
                : " comes only once"}
          </span>
        </p>
        {!whole && (
          <button type="button" className="quiet" onClick={() => choose(chooseAll(piece))}>
            the whole piece
          </button>
        )}
        <label className="flex items-center gap-2">
          <span className="fine">tempo</span>
          <input
            type="range"
            min={30}
            max={208}
            step={2}
            value={tempo}
            onChange={(e) => setTempo(Number(e.target.value))}
            className="w-28 border-0 p-0 accent-working"
          />
          <output className="figures w-8">{tempo}</output>
        </label>
        <label className="flex min-h-touch items-center gap-2">
          <input
            type="checkbox"
            checked={click}
            onChange={(e) => setClick(e.target.checked)}
            className="size-5 min-h-0 accent-working"
          />
          click
        </label>
      </div>
      <Pieces piece={piece} chosen={chosen} choose={choose} />
    </section>
  );
}

/** Everything that can be chosen, as text: chunks, patterns that come again, motifs. */
function Pieces(props: { piece: Schemas["Piece"]; chosen: Chosen; choose: (c: Chosen) => void }) {
  const { piece, chosen, choose } = props;
  const leaves = piece.chunks.filter((c) => c.level === 0);
  const repeated = piece.patterns.filter((p) => p.bars.length > 1);
  const chip = (title: string, c: Chosen, words: string) => (
    <button
      key={title}
      type="button"
      className="quiet"
      aria-pressed={chosen.title === c.title}
      onClick={() => choose(c)}
    >
      {words}
    </button>
  );
  return (
    <details className="mt-1">
      <summary className="fine min-h-touch content-center">
        Choose what to hear: {leaves.length} {leaves.length === 1 ? "chunk" : "chunks"}
        {repeated.length > 0 && `, ${repeated.length} repeated ${repeated.length === 1 ? "bar" : "bars"}`}
        {piece.motifs.length > 0 &&
          `, ${piece.motifs.length} ${piece.motifs.length === 1 ? "motif" : "motifs"}`}
      </summary>
      <div className="flex flex-wrap">
        {piece.chunks.map((c, i) => {
          const chosenChunk = chooseChunk(piece, c);
          const name = c.level === 0 ? `${leaves.indexOf(c) + 1}: ${c.where}` : `joined: ${c.where}`;
          return chip(`c${i}`, chosenChunk, name);
        })}
        {repeated.map((p) =>
          chip(p.letter, choosePattern(piece, p, p.bars[0] ?? 1), `pattern ${p.letter} ×${p.bars.length}`),
        )}
        {piece.motifs.map((m) =>
          chip(`m${m.name}`, chooseMotif(piece, m), `motif ${m.name} (${m.notes} notes) ×${m.at.length}`),
        )}
      </div>
    </details>
  );
}
