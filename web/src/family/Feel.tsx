import type { Schemas } from "../contract/client";

const feelings: { felt: Schemas["Felt"]; mouth: string }[] = [
  { felt: "joyful", mouth: "M5 11.5Q10 17 15 11.5" },
  { felt: "fine", mouth: "M6 13.5H14" },
  { felt: "hard", mouth: "M5.5 13q1.6-1.8 3 0t3 0 3 0" },
];

/** The tick, with how it felt: one touch for both. */
export function Feel({ onDone }: { onDone: (felt: Schemas["Felt"] | undefined) => void }) {
  return (
    <fieldset className="m-0 mt-4 border-0 p-0">
      <legend className="mx-auto mb-1 px-0 text-center">Done? How did it feel?</legend>
      <div className="flex justify-center gap-2">
        {feelings.map(({ felt, mouth }) => (
          <button
            key={felt}
            type="button"
            className="flex min-h-20 w-24 flex-col items-center justify-center rounded-xl border-2 border-line hover:bg-fold"
            onClick={() => onDone(felt)}
          >
            <svg
              viewBox="0 0 20 20"
              width="40"
              height="40"
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
            {felt}
          </button>
        ))}
      </div>
      <p className="mt-1 text-center">
        <button type="button" className="quiet" onClick={() => onDone(undefined)}>
          Done, nothing to say
        </button>
      </p>
    </fieldset>
  );
}
