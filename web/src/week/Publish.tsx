import type { Schemas } from "../contract/client";
import { shortDate } from "../data/words";

/** Shows the week to the family. */
export function PublishButton(props: { week: Schemas["Week"]; busy: boolean; publish: () => void }) {
  const { week: w } = props;
  const settled = w.published && !w.changed;
  return (
    <button
      type="button"
      className={`press ${settled ? "" : "press-main"}`}
      disabled={props.busy || settled}
      onClick={props.publish}
    >
      {!w.published ? "Publish" : w.changed ? "Publish again" : "Published"}
    </button>
  );
}

/** Says what would be planned otherwise by now, and lets the teacher choose. */
export function PublishChanged(props: {
  changed?: Schemas["WeekChanged"];
  busy: boolean;
  showNew: () => void;
  asShown: () => void;
}) {
  const c = props.changed;
  if (!c) return null;
  return (
    <div role="alert" className="mt-2 border-l-4 border-cliff bg-fold px-3 py-2">
      <p>{c.detail}</p>
      <ul className="list-disc pl-5">
        {c.changes.map((x) => (
          <li key={x}>{x}</li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="press press-main" disabled={props.busy} onClick={props.showNew}>
          Show the new plan
        </button>
        {c.canPublish && (
          <button type="button" className="press" disabled={props.busy} onClick={props.asShown}>
            Publish what was shown
          </button>
        )}
      </div>
    </div>
  );
}

/** Says what the family sees now. */
export function PublishState({ week: w }: { week: Schemas["Week"] }) {
  let says = "The family sees nothing of this week until it is published.";
  if (w.published && w.publishedAt) {
    const on = shortDate(w.publishedAt);
    says = w.changed
      ? `The family sees the week as it was published on ${on}; as it stands now, it would be otherwise.`
      : `The family sees this week since ${on}${w.family.recipients.length > 0 ? `; a message is in the mailbox for ${w.family.recipients.join(", ")}` : ""}.`;
  }
  return (
    <p role="status" className="fine mt-1">
      {says}
    </p>
  );
}

/** What is sent when the week is published now, to be read before. */
export function WouldSend({ week: w }: { week: Schemas["Week"] }) {
  if (w.published && !w.changed) return null;
  if (w.messages.length === 0)
    return <p className="fine mt-1">No message is sent: nobody is written to, or the family wants none.</p>;
  return (
    <details className="mt-1">
      <summary className="flex min-h-touch items-center underline decoration-line underline-offset-4">
        What is sent: {w.messages.length === 1 ? "one message" : `${w.messages.length} messages`}
      </summary>
      <ul className="grid gap-3 border-l-4 border-line pl-3">
        {w.messages.map((m) => (
          <li key={m.to + m.subject + m.when}>
            <p className="fine">
              to {m.to}, {m.when}
            </p>
            <p>
              <strong>{m.subject}</strong>
            </p>
            <p className="whitespace-pre-line break-words">{m.body}</p>
          </li>
        ))}
      </ul>
    </details>
  );
}
