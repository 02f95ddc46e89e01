import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { firstName } from "../data/words";

/** What was last time: a lesson opens with it. */
export function LastTime({ lesson }: { lesson: Schemas["Lesson"] }) {
  const last = lesson.last;
  const [open, setOpen] = useState(false);
  if (!last) return null;
  const shown = open ? last.lines : last.lines.slice(0, 2);
  return (
    <section
      aria-label="Last time"
      className="mt-2 flex flex-wrap items-baseline gap-x-4 border-l-4 border-review py-1 pl-3"
    >
      <Link
        to={`/past/${lesson.student.ladder}?day=${last.day}`}
        className="font-semibold underline decoration-line underline-offset-4"
      >
        {last.words}
      </Link>
      {last.bring.map((b) => (
        <strong key={b} className="text-preview">
          {lesson.student.called || firstName(lesson.student.name)} was to bring {b}
        </strong>
      ))}
      {shown.map((l) => (
        <span key={l}>{l}</span>
      ))}
      {last.lines.length > 2 && (
        <button type="button" className="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Less" : `${last.lines.length - 2} more`}
        </button>
      )}
    </section>
  );
}
