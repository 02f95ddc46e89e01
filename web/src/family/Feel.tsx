import type { Schemas } from "../contract/client";
import { useSay } from "./say";

const feelings: { felt: Schemas["Felt"]; mouth: string }[] = [
  { felt: "joyful", mouth: "M5 11.5Q10 17 15 11.5" },
  { felt: "fine", mouth: "M6 13.5H14" },
  { felt: "hard", mouth: "M5.5 13q1.6-1.8 3 0t3 0 3 0" },
];

/** The tick, with how it felt: one touch for both. */
export function Feel({ onDone }: { onDone: (felt: Schemas["Felt"] | undefined) => void }) {
  const { say } = useSay();
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="sr-only">{say("felt")}</legend>
      <div className="flex items-stretch justify-center gap-2">
        {feelings.map(({ felt, mouth }) => (
          <button
            key={felt}
            type="button"
            className="flex min-h-16 flex-1 flex-col items-center justify-center rounded-xl border-2 border-line bg-sheet leading-tight hover:bg-fold"
            onClick={() => onDone(felt)}
          >
            <svg
              viewBox="0 0 20 20"
              width="32"
              height="32"
              aria-hidden="true"
              fill="none"
              stroke="currentColor"
              strokeWidth="1.4"
              strokeLinecap="round"
            >
              <circle cx="10" cy="10" r="8.5" />
              <path d="M7 7v1.6M13 7v1.6" />
              <path d={mouth} />
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
