import { Popover } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";
import { useFirstDay, useStudents } from "../data/people";
import { groupsOf } from "../data/roll";
import { AddStudent } from "./AddStudent";
import { Waiting } from "./Problem";

/** All students, by name or by their day, with a search. */
export function Students() {
  const [open, setOpen] = useState(false);
  const [by, setBy] = useState<"day" | "name">("day");
  const [wanted, setWanted] = useState("");
  const students = useStudents(open);
  const firstDay = useFirstDay();
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="quiet">Students</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          className="z-20 flex max-h-[80vh] w-88 max-w-[95vw] flex-col rounded-lg border border-line bg-sheet p-2 shadow-lg"
          aria-label="Students"
        >
          <div className="flex gap-1">
            <input
              type="search"
              aria-label="Search students"
              placeholder="Search"
              className="min-w-0 flex-1"
              value={wanted}
              onChange={(e) => setWanted(e.target.value)}
            />
            {(["day", "name"] as const).map((key) => (
              <button
                key={key}
                type="button"
                aria-pressed={by === key}
                className="min-h-touch rounded px-2 text-[0.9rem] hover:bg-fold aria-pressed:bg-fold aria-pressed:font-semibold"
                onClick={() => setBy(key)}
              >
                By {key}
              </button>
            ))}
          </div>
          {students.isPending && <Waiting />}
          <div className="mt-1 min-h-0 flex-1 overflow-y-auto">
            {groupsOf(students.data ?? [], by, wanted, firstDay).map((g) => (
              <section key={g.title} aria-label={g.title}>
                <p className="fine sticky top-0 bg-sheet px-2 pt-1">{g.title}</p>
                <ul>
                  {g.students.map((s) => (
                    <li key={s.ladder} className="flex items-center">
                      <Link
                        to={`/ladder/${s.ladder}`}
                        onClick={() => setOpen(false)}
                        className="flex min-h-touch min-w-0 flex-1 items-center justify-between gap-3 rounded px-2 hover:bg-fold"
                      >
                        <span className="truncate">{s.name}</span>
                        <span className="fine shrink-0">
                          {s.instrument}, {s.age}
                        </span>
                      </Link>
                      <Link
                        to={`/student/${s.student}`}
                        onClick={() => setOpen(false)}
                        aria-label={`About ${s.name}`}
                        className="grid min-h-touch min-w-touch place-items-center rounded text-soft hover:bg-fold"
                      >
                        <svg viewBox="0 0 20 20" width="18" height="18" aria-hidden="true">
                          <circle
                            cx="10"
                            cy="6.5"
                            r="3"
                            fill="none"
                            stroke="currentColor"
                            strokeWidth="1.6"
                          />
                          <path
                            d="M4 17c0-4 2.6-5.6 6-5.6s6 1.6 6 5.6"
                            fill="none"
                            stroke="currentColor"
                            strokeWidth="1.6"
                          />
                        </svg>
                      </Link>
                    </li>
                  ))}
                </ul>
              </section>
            ))}
          </div>
          <AddStudent onAdded={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
