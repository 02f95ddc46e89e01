import type { Schemas } from "../contract/client";
import { markNames } from "../data/words";

/** A mark as a vessel that fills: empty, half, full; dotted while nothing was given. */
export function MarkGlyph({ mark, size = 22 }: { mark?: Schemas["Mark"]; size?: number }) {
  return (
    <svg viewBox="0 0 22 22" width={size} height={size} role="img" className="shrink-0">
      <title>{mark ? markNames[mark] : "no mark yet"}</title>
      {mark === "part" && <path d="M3 11h16a8 8 0 0 1-16 0z" fill="currentColor" />}
      {mark === "full" && <path d="M2.6 7h16.8a8.6 8.6 0 1 1-16.8 0z" fill="currentColor" />}
      <path
        d="M3.4 5.5a8.6 8.6 0 1 0 15.2 0"
        fill="none"
        stroke="currentColor"
        strokeWidth="2"
        strokeLinecap="round"
        strokeDasharray={mark ? undefined : "1 3.4"}
      />
    </svg>
  );
}
