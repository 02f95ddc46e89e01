import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";

/** Gives the student a focus point of their own, which travels from piece to piece until it is a habit. */
export function OwnPoint({ name, append }: { name: string; append: Append }) {
  const [open, setOpen] = useState(false);
  const [id, setID] = useState(ulid);
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const text = String(new FormData(e.currentTarget).get("text") ?? "").trim();
    if (!text) return;
    append.mutate([entry("focusAdded", { focus: id, text })]);
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
        <span className="fine">A point of {name}’s own, for every piece</span>
        {/* biome-ignore lint/a11y/noAutofocus: the field was just asked for */}
        <input name="text" maxLength={300} autoFocus autoComplete="off" />
      </label>
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
