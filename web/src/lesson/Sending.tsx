import type { Waiting } from "../data/outbox";
import { outbox } from "../data/useLessonAppend";

/** What is kept on this device and not sent yet; what was refused says why. */
export function Sending({ waiting }: { waiting: Waiting[] }) {
  const refused = waiting.filter((w) => w.refused);
  const count = waiting.filter((w) => !w.refused && !w.sent).length;
  if (count + refused.length === 0) return null;
  return (
    <div role="status" className="mt-2 border-l-4 border-preview pl-3">
      {count > 0 && (
        <p>
          {count === 1 ? "One entry is" : `${count} entries are`} kept on this device and will be sent when
          there is a connection.
        </p>
      )}
      {refused.map((w) => (
        <p key={w.entry.id} className="flex flex-wrap items-center gap-2">
          <span className="text-cliff">
            Not taken ({w.entry.kind}): {w.refused}
          </span>
          <button type="button" className="quiet" onClick={() => outbox.forget(w.entry.id)}>
            Take it away
          </button>
        </p>
      ))}
    </div>
  );
}
