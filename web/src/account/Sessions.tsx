import type { Schemas } from "../contract/client";
import { useEndOtherSessions, useEndSession } from "../data/account";
import { Refused } from "../parts/Problem";

/** The devices that are signed in; each can be signed out from here. */
export function Sessions({ sessions }: { sessions: Schemas["OpenSession"][] }) {
  const end = useEndSession();
  const others = useEndOtherSessions();
  return (
    <section aria-label="Where you are signed in">
      <h2>Where you are signed in</h2>
      <ul className="mt-1 max-w-xl">
        {sessions.map((s) => (
          <li
            key={s.id}
            className="flex min-h-touch items-center justify-between gap-3 border-t border-line/60"
          >
            <span>
              {s.device || "a device"} <span className="fine">{s.words}</span>
            </span>
            {s.here ? (
              <span className="fine">this one</span>
            ) : (
              <button
                type="button"
                className="quiet"
                disabled={end.isPending}
                aria-label={`Sign out: ${s.device}`}
                onClick={() => end.mutate(s.id)}
              >
                Sign out
              </button>
            )}
          </li>
        ))}
      </ul>
      <Refused error={end.error ?? others.error} />
      {sessions.length > 1 && (
        <button
          type="button"
          className="press mt-2"
          disabled={others.isPending}
          onClick={() => others.mutate(undefined)}
        >
          Sign out everywhere else
        </button>
      )}
      <p role="status" className="fine mt-1">
        {others.data?.words}
      </p>
    </section>
  );
}
