import type { Schemas } from "../contract/client";
import { useSay } from "./say";

/** How it felt, drawn as the way that a hand goes: a leap, an even walk, a steep climb. */
const feelings: { felt: Schemas["Felt"]; way: string }[] = [
  { felt: "joyful", way: "M3 21Q14 -6 25 17M21 15l4.5 3 2-5" },
  { felt: "fine", way: "M3 15q4-5 8 0t8 0 8 0" },
  { felt: "hard", way: "M3 25h5v-6h5v-6h5v-6h5v-5" },
];

/** The tick, with how it felt: one touch for both. */
export function Feel({ onDone }: { onDone: (felt: Schemas["Felt"] | undefined) => void }) {
  const { say } = useSay();
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="sr-only">{say("felt")}</legend>
      <div className="flex items-stretch justify-center gap-2">
        {feelings.map(({ felt, way }) => (
          <button
            key={felt}
            type="button"
            className="flex min-h-16 flex-1 flex-col items-center justify-center rounded-xl border-2 border-line bg-sheet leading-tight hover:bg-fold"
            onClick={() => onDone(felt)}
          >
            <svg
              viewBox="0 0 30 28"
              width="34"
              height="32"
              aria-hidden="true"
              fill="none"
              stroke="var(--color-working)"
              strokeWidth="2.4"
              strokeLinecap="round"
              strokeLinejoin="round"
            >
              <path d={way} />
            </svg>
            {say(felt)}
          </button>
        ))}
        <button
          type="button"
          className="min-h-16 flex-1 rounded-xl border-2 border-line bg-sheet px-1 leading-tight hover:bg-fold"
          onClick={() => onDone(undefined)}
        >
          {say("plain")}
        </button>
      </div>
    </fieldset>
  );
}
