import { useEffect, useState } from "react";

/** The whole minutes since the lesson was first looked at today. */
export function useLessonClock(ladder: string): number {
  const key = `lesson-start-${ladder}-${new Date().toDateString()}`;
  const [start] = useState(() => {
    const kept = Number(localStorage.getItem(key));
    if (kept) return kept;
    const now = Date.now();
    localStorage.setItem(key, String(now));
    return now;
  });
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 10_000);
    return () => clearInterval(timer);
  }, []);
  return Math.floor((now - start) / 60_000);
}
