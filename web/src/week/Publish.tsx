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
