import { useEffect, useState } from "react";
import { clock } from "../data/clock";
import { device } from "../data/device";
import { useToday } from "../data/people";

/** The whole minutes since the lesson was first looked at today. */
export function useLessonClock(ladder: string): number {
  const key = `lesson-start-${ladder}-${useToday()}`;
  const [start] = useState(() => {
    const kept = Number(device.getItem(key));
    if (kept) return kept;
    const now = clock.now();
    device.tryItem(key, String(now));
    return now;
  });
  const [now, setNow] = useState(() => clock.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(clock.now()), 10_000);
    return () => clearInterval(timer);
  }, []);
  return Math.floor((now - start) / 60_000);
}
