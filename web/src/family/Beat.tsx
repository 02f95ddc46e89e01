import { useEffect, useMemo, useState } from "react";
import { Player } from "../sound/player";
import { useSay } from "./say";

/** How fast, in words; a tap clicks it. */
export function Beat({ words, beats }: { words: string; beats: number }) {
  const { say } = useSay();
  const player = useMemo(() => new Player(), []);
  const [on, setOn] = useState(false);
  useEffect(() => () => player.stop(), [player]);
  if (!words) return null;
  return (
    <button
      type="button"
      className="press max-w-full gap-2 aria-pressed:border-working aria-pressed:bg-reach"
      aria-pressed={on}
      aria-label={`${words}. ${say(on ? "beat.stop" : "beat")}`}
      onClick={() => {
        if (on) player.stop();
        else player.beat(beats);
        setOn(!on);
      }}
    >
      <svg
        viewBox="0 0 20 20"
        width="20"
        height="20"
        aria-hidden="true"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
      >
        <path d="M6 18h8l-2-15H8zM10 13l5-9" strokeLinejoin="round" strokeLinecap="round" />
      </svg>
      {words}
    </button>
  );
}

/** A metronome, where there are no notes to be heard. */
export function Metronome({ beats }: { beats: number }) {
  const { say } = useSay();
  const player = useMemo(() => new Player(), []);
  const [tempo, setTempo] = useState(beats || 60);
  const [on, setOn] = useState(false);
  useEffect(() => () => player.stop(), [player]);
  const change = (to: number) => {
    const held = Math.min(208, Math.max(30, to));
    setTempo(held);
    if (on) player.beat(held);
  };
  return (
    <section aria-label={say("metronome")} className="mt-3 flex flex-wrap items-center justify-center gap-2">
      <button
        type="button"
        className="press aria-pressed:border-working aria-pressed:bg-reach"
        aria-pressed={on}
        onClick={() => {
          if (on) player.stop();
          else player.beat(tempo);
          setOn(!on);
        }}
      >
        {say("metronome")}
      </button>
      <button
        type="button"
        className="press min-w-touch px-2"
        aria-label={say("slower")}
        onClick={() => change(tempo - 4)}
      >
        −
      </button>
      <span className="figures w-12 text-center text-lg">{tempo}</span>
      <button
        type="button"
        className="press min-w-touch px-2"
        aria-label={say("faster")}
        onClick={() => change(tempo + 4)}
      >
        +
      </button>
    </section>
  );
}
