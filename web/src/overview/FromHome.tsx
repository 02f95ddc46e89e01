import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";

type Note = Schemas["HomeNote"];

/** What families wrote: what waits first, each with room for an answer. */
export function FromHome(props: {
  notes: Note[];
  busy: boolean;
  answer: (note: string, answer: string) => void;
}) {
  if (props.notes.length === 0) return <p className="mt-1">No family has written in the last weeks.</p>;
  return (
    <ol className="mt-2">
      {props.notes.map((n) => (
        <li key={n.id} className="border-t border-line py-3">
          <p className="fine flex flex-wrap justify-between gap-x-4">
            <span>
              <strong className="text-ink">{n.name}</strong> · {n.said}
            </span>
            {n.kind === "reschedule" && n.about && (
              <Link to={`/calendar?day=${n.day ?? ""}`} className="underline">
                asks to move the lesson on {n.about}
              </Link>
            )}
          </p>
          <p className="mt-1 whitespace-pre-line break-words text-lg leading-snug">{n.text}</p>
          {n.answer && (
            <p className="mt-1 whitespace-pre-line break-words border-l-4 border-focus pl-3">{n.answer}</p>
          )}
          {n.open && <Answer note={n} busy={props.busy} send={(text) => props.answer(n.id, text)} />}
        </li>
      ))}
    </ol>
  );
}

function Answer({ note, busy, send }: { note: Note; busy: boolean; send: (text: string) => void }) {
  const [text, setText] = useState("");
  return (
    <form
      className="mt-2 grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) send(text.trim());
      }}
    >
      <label className="grid gap-1">
        <span className="sr-only">Answer to {note.name}</span>
        <textarea
          className="rounded-md border-[1.5px] border-soft bg-sheet px-3 py-2"
          rows={2}
          maxLength={2000}
          placeholder="Your answer"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <span className="flex flex-wrap gap-2">
        <button type="submit" className="press press-main" disabled={busy || text.trim() === ""}>
          Answer
        </button>
        <button type="button" className="press" disabled={busy} onClick={() => send("")}>
          Put away without an answer
        </button>
      </span>
    </form>
  );
}
