import { useFeedLink, useMakeFeedLink, useRevokeFeedLink } from "../data/dates";
import { Refused } from "../parts/Problem";

/** The teacher's own calendar, to be shown by any calendar program. */
export function Subscribe() {
  const link = useFeedLink();
  const make = useMakeFeedLink();
  const revoke = useRevokeFeedLink();
  const path = link.data?.link;
  return (
    <section aria-label="Calendar link">
      <h2>In your own calendar</h2>
      <p className="fine">
        A link for your phone or computer. It shows all lessons with names; whoever has it can read them.
      </p>
      {path ? (
        <>
          <input
            readOnly
            aria-label="Link"
            className="mt-2 w-full text-fine"
            value={`${window.location.origin}${path}`}
            onFocus={(e) => e.target.select()}
          />
          <button
            type="button"
            className="quiet"
            disabled={revoke.isPending}
            onClick={() => revoke.mutate(undefined)}
          >
            Close the link
          </button>
        </>
      ) : (
        <button
          type="button"
          className="press mt-2"
          disabled={make.isPending}
          onClick={() => make.mutate(undefined)}
        >
          Make a link
        </button>
      )}
      <Refused error={make.error ?? revoke.error} />
    </section>
  );
}
