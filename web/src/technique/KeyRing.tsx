import type { Schemas } from "../contract/client";
import { sign } from "./keys";

const size = 300;
const centre = size / 2;
const radius = 122;

/** The keys in a ring of fifths: one step to the right is one sharp more. */
export function KeyRing(props: { scale: Schemas["Scale"]; onPick: (key: string) => void }) {
  const { keys } = props.scale;
  // Fifteen names for twelve places: where two are one key on the keyboard they share it.
  const places = Array.from({ length: 12 }, (_, i) => keys.filter((_, k) => (k + 5) % 12 === i));
  return (
    <fieldset className="relative m-0 mx-auto aspect-square w-full max-w-[21rem] border-0 p-0">
      <legend className="sr-only">Key</legend>
      <svg viewBox={`0 0 ${size} ${size}`} className="absolute inset-0" aria-hidden="true">
        <circle cx={centre} cy={centre} r={radius} fill="none" stroke="var(--color-line)" strokeWidth="2" />
      </svg>
      {places.map((names, i) => {
        const turn = (i / 12) * 2 * Math.PI;
        const left = 50 + (100 * radius * Math.sin(turn)) / size;
        const top = 50 - (100 * radius * Math.cos(turn)) / size;
        return (
          <span
            key={names.join()}
            className="absolute flex flex-col -translate-x-1/2 -translate-y-1/2 overflow-hidden rounded-[1.4rem] border-2 border-line bg-sheet"
            style={{ left: `${left}%`, top: `${top}%` }}
          >
            {names.map((k) => (
              <button
                key={k}
                type="button"
                aria-pressed={k === props.scale.key}
                className="min-h-touch min-w-touch px-1.5 aria-pressed:bg-working aria-pressed:font-bold aria-pressed:text-on-working"
                onClick={() => props.onPick(k)}
              >
                {sign(k)}
              </button>
            ))}
          </span>
        );
      })}
    </fieldset>
  );
}
