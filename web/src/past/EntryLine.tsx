import { type FormEvent, useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Entry } from "../data/outbox";
import { markNames } from "../data/words";

const clock = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

/** The same entry with something else in it, at the same time: the old one is taken back. */
export const changed = (e: Entry, fields: Partial<Entry>): Entry[] => {
  const { id, at, kind, ...rest } = e;
  return [{ ...entry("correction", { corrects: id }) }, { ...entry(kind, { ...rest, ...fields }), at }];
};

/** One entry of a lesson that was. */
export function EntryLine(props: {
  of: Schemas["PastEntry"];
  write: (entries: Entry[]) => void;
  busy: boolean;
}) {
  const { entry: e, text, title } = props.of;
  const [editing, setEditing] = useState(false);
  const worded = e.kind === "note" || e.kind === "bring" || e.kind === "wentWell";
  const save = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const words = String(new FormData(event.currentTarget).get("text") ?? "").trim();
    setEditing(false);
    if (words && words !== e.text) props.write(changed(e, { text: words }));
  };
  return (
    <li className="flex flex-wrap items-center gap-x-3 border-b border-line/60">
      <span className="figures fine w-12">{clock.format(new Date(e.at))}</span>
      {editing ? (
        <form onSubmit={save} className="flex flex-1 flex-wrap gap-2 py-1">
          <input
            name="text"
            aria-label="The words"
            defaultValue={e.text}
            maxLength={300}
            className="min-w-0 flex-1"
          />
          <button type="submit" className="press">
            Save
          </button>
        </form>
      ) : (
        <span className="min-w-0 flex-1 py-1">
          {text}
          {title && !text.includes(title) && <span className="fine"> · {title}</span>}
        </span>
      )}
      {e.kind === "mark" && (
        <select
          aria-label={`The mark of ${text}`}
          value={e.mark}
          disabled={props.busy}
          onChange={(x) => props.write(changed(e, { mark: x.target.value as Entry["mark"] }))}
        >
          {Object.entries(markNames).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      )}
      {e.kind === "hearing" && (
        <select
          aria-label={`The rating of ${text}`}
          value={e.rating}
          disabled={props.busy}
          onChange={(x) => props.write(changed(e, { rating: Number(x.target.value) }))}
        >
          {[1, 2, 3, 4].map((n) => (
            <option key={n} value={n}>
              {n} of 4
            </option>
          ))}
        </select>
      )}
      {worded && !editing && (
        <button type="button" className="quiet" disabled={props.busy} onClick={() => setEditing(true)}>
          Edit
        </button>
      )}
      <button
        type="button"
        className="quiet"
        disabled={props.busy}
        aria-label={`Take back: ${text}`}
        onClick={() => props.write([entry("correction", { corrects: e.id })])}
      >
        Take back
      </button>
    </li>
  );
}
