import { type FormEvent, useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";

/** A word of observation: one of the student's usual ones, or typed. */
export function Observe({ usual, append }: { usual: Schemas["Lesson"]["usual"]; append: Append }) {
  const [open, setOpen] = useState<"note" | "bring">();
  const note = (text: string) => {
    append.mutate([entry(open ?? "note", { text })]);
    setOpen(undefined);
  };
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const text = String(new FormData(e.currentTarget).get("text") ?? "").trim();
    if (text) note(text);
  };
  return (
    <section aria-label="Notes" className="mt-6 border-t border-line pt-3">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-2 text-lg">Notes</h2>
        {usual.map((text) => (
          <button key={text} type="button" className="press border-line" onClick={() => note(text)}>
            {text}
          </button>
        ))}
        {!open && (
          <>
            <button type="button" className="quiet" onClick={() => setOpen("note")}>
              Add a note
            </button>
            <button type="button" className="quiet" onClick={() => setOpen("bring")}>
              To bring next time
            </button>
          </>
        )}
      </div>
      {open && (
        <form onSubmit={send} className="mt-2 flex flex-wrap gap-2">
          <input
            name="text"
            aria-label={open === "bring" ? "What to bring" : "What was seen or heard"}
            maxLength={300}
            autoComplete="off"
            className="min-w-60 flex-1"
          />
          <button type="submit" className="press press-main">
            Keep it
          </button>
        </form>
      )}
    </section>
  );
}
