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
