import { useEffect, useMemo, useState } from "react";
import { type Performance, Player } from "./player";

/** A player with what sounds now; it falls silent when the screen goes. */
export function usePlayback() {
  const player = useMemo(() => new Player(), []);
  const [now, setNow] = useState<{ midi: number[]; at: number }>();
  const [playing, setPlaying] = useState(false);
  useEffect(() => () => player.stop(), [player]);
  return {
    now,
    playing,
    stop: () => {
      player.stop();
      setPlaying(false);
      setNow(undefined);
    },
    play: (p: Performance) => {
      setPlaying(true);
      player.play(p, (heard) => {
        setNow(heard);
        if (!heard) setPlaying(false);
      });
    },
  };
}
