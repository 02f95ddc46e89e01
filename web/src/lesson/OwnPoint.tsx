import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";

/** Gives the student a focus point of their own: it travels from piece to piece until it is a habit, or holds on one piece. */
export function OwnPoint(props: {
  name: string;
  piece: { material: string; title: string };
  append: Append;
}) {
  const { name, piece, append } = props;
  const [open, setOpen] = useState(false);
  const [id, setID] = useState(ulid);
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const text = String(new FormData(e.currentTarget).get("text") ?? "").trim();
    if (!text) return;
    const only = new FormData(e.currentTarget).get("only") === "piece";
    append.mutate([entry("focusAdded", { focus: id, text, ...(only ? { material: piece.material } : {}) })]);
    setID(ulid());
    setOpen(false);
  };
  if (!open)
    return (
      <button type="button" className="quiet mt-1" onClick={() => setOpen(true)}>
        Add a point for {name}
      </button>
    );
  return (
    <form onSubmit={send} className="mt-2 flex flex-col gap-2">
      <label className="flex flex-col gap-1">
        <span className="fine">A focus point for {name}</span>
        {/* biome-ignore lint/a11y/noAutofocus: the field was just asked for */}
        <input name="text" maxLength={300} autoFocus autoComplete="off" />
      </label>
      <select name="only" aria-label="Where it holds">
        <option value="">on every piece, until it is a habit</option>
        <option value="piece">on “{piece.title}” only</option>
      </select>
      <span className="flex gap-2">
        <button type="submit" className="press press-main">
          Give it
        </button>
        <button type="button" className="quiet" onClick={() => setOpen(false)}>
          Never mind
        </button>
      </span>
    </form>
  );
}
