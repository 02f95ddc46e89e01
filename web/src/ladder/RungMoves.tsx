import type { Schemas } from "../contract/client";
import { entry, useAppend } from "../data/entries";
import { Refused } from "../parts/Problem";
import { isAhead } from "./layout";
import { move, type Order, placeOf, setAside, takeOff } from "./order";

/** What can be done with a rung by hand: earlier, later, skip, put off, take off; a working piece can rest. */
export function RungMoves(props: {
  rung: Schemas["Rung"];
  ladder: string;
  order: Order;
  busy: boolean;
  attempt: (order: Order) => void;
}) {
  const { rung, order, busy, attempt } = props;
  const append = useAppend(props.ladder);
  if (rung.layer === "working") {
    const resting = rung.aside === "paused";
    return (
      <>
        <button
          type="button"
          className="quiet -ml-2"
          disabled={append.isPending}
          onClick={() => append.mutate([entry(resting ? "resumed" : "paused", { material: rung.material })])}
        >
          {resting ? "Take up again" : "Set aside"}
        </button>
        <Refused error={append.error} />
      </>
    );
  }
  if (!isAhead(rung)) return null;
  const { at, of } = placeOf(order, rung.material);
  return (
    <fieldset className="m-0 mt-3 border-0 p-0" disabled={busy}>
      <legend className="fine">Move it by hand (or drag it; with the keyboard Alt and the arrows)</legend>
      <div className="mt-1 flex flex-wrap gap-2">
        <button
          type="button"
          className="press"
          disabled={at <= 0}
          onClick={() => attempt(move(order, rung.material, -1))}
        >
          Earlier
        </button>
        <button
          type="button"
          className="press"
          disabled={at < 0 || at >= of - 1}
          onClick={() => attempt(move(order, rung.material, 1))}
        >
          Later
        </button>
      </div>
      <div className="flex flex-wrap">
        {rung.aside ? (
          <button type="button" className="quiet" onClick={() => attempt(setAside(order, rung.material, ""))}>
            Count it again
          </button>
        ) : (
          <>
            <button
              type="button"
              className="quiet"
              onClick={() => attempt(setAside(order, rung.material, "skipped"))}
            >
              Skip
            </button>
            <button
              type="button"
              className="quiet"
              onClick={() => attempt(setAside(order, rung.material, "paused"))}
            >
              Put off
            </button>
          </>
        )}
        <button type="button" className="quiet" onClick={() => attempt(takeOff(order, rung.material))}>
          Remove from the ladder
        </button>
      </div>
    </fieldset>
  );
}
