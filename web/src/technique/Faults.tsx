import type { Schemas } from "../contract/client";
import { afterTap, faultWords } from "./words";

/**
 * The usual faults, to be tapped when one is seen; tapped again it is less, then
 * gone. One that was seen counts against the exercise until it is gone.
 */
export function Faults(props: {
  faults: Schemas["Fault"][];
  mark: (focus: string, mark: Schemas["Mark"]) => void;
  /** There is room for two side by side. */
  wide?: boolean;
}) {
  if (props.faults.length === 0) return null;
  return (
    <section aria-label="Usual faults" className="mt-3">
      <h3 className="text-base">Watch for</h3>
      <ul className={props.wide ? "grid gap-x-6 md:grid-cols-2" : ""}>
        {props.faults.map((f) => (
          <li key={f.id}>
            <button
              type="button"
              onClick={() => props.mark(f.id, afterTap(f.mark))}
              className="flex min-h-touch w-full items-baseline gap-2 rounded px-1 py-1 text-left leading-tight hover:bg-fold"
            >
              <span
                className={`inline-flex w-12 shrink-0 justify-center rounded-sm border text-[0.8rem] font-semibold ${
                  !f.mark
                    ? "border-dashed border-line text-soft"
                    : f.mark === "full"
                      ? "border-good text-good"
                      : "border-cliff text-cliff"
                }`}
              >
                {faultWords(f.mark)}
              </span>
              <span>
                {f.text}
                <span className="fine block">{f.look}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
