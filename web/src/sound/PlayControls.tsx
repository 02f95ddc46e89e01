import { useState } from "react";
import type { Performance } from "./player";
import type { usePlayback } from "./usePlayback";

/** Hear it, at a tempo, with the click. */
export function PlayControls(props: {
  playback: ReturnType<typeof usePlayback>;
  tempo: number;
  setTempo: (tempo: number) => void;
  /** What is played, but for the tempo and the click. */
  what: () => Omit<Performance, "tempo" | "click">;
}) {
  const { playback, tempo } = props;
  const [click, setClick] = useState(true);
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
      <button
        type="button"
        className="press press-main min-w-32"
        onClick={playback.playing ? playback.stop : () => playback.play({ ...props.what(), tempo, click })}
      >
        {playback.playing ? "Stop" : "Hear it"}
      </button>
      <label className="flex items-center gap-2">
        <span className="fine">tempo</span>
        <input
          type="range"
          min={40}
          max={208}
          value={tempo}
          onChange={(e) => props.setTempo(e.target.valueAsNumber)}
          className="w-40 accent-working"
        />
        <span className="figures w-10">{tempo}</span>
      </label>
      <label className="flex min-h-touch items-center gap-2">
        <input
          type="checkbox"
          className="min-h-6 w-6 accent-working"
          checked={click}
          onChange={(e) => setClick(e.target.checked)}
        />
        count in and click
      </label>
    </div>
  );
}
