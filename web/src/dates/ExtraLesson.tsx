import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { useChangeLesson } from "../data/dates";
import { useStudents } from "../data/people";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

/** A lesson beside the usual times. */
export function ExtraLesson({ day }: { day: string }) {
  const [open, setOpen] = useState(false);
  const students = useStudents(open);
  const [id, setID] = useState(ulid);
  const add = useChangeLesson(() => {
    setOpen(false);
    setID(ulid());
  });
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const text = (name: string) => String(f.get(name) ?? "");
    add.mutate({
      ladder: text("ladder"),
      lesson: id,
      change: { what: "add", day: text("day"), startsAt: text("startsAt"), minutes: Number(text("minutes")) },
    });
  };
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        Add a lesson
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="An extra lesson"
        says="One lesson beside the usual times."
      >
        <form onSubmit={send} className="grid gap-3 sm:grid-cols-3">
          <div className="sm:col-span-3">
            <Field label="Student">
              <select name="ladder" required className="w-full min-w-0">
                {students.data
                  ?.filter((s) => s.state !== "gone")
                  .map((s) => (
                    <option key={s.ladder} value={s.ladder}>
                      {s.name}, {s.instrument}
                    </option>
                  ))}
              </select>
            </Field>
          </div>
          <Field label="Day">
            <input name="day" type="date" required defaultValue={day} className="min-w-0" />
          </Field>
          <Field label="At">
            <input name="startsAt" type="time" required defaultValue="16:00" />
          </Field>
          <Field label="Minutes">
            <input name="minutes" type="number" min={5} max={240} required defaultValue={30} />
          </Field>
          <div className="grid gap-3 sm:col-span-3">
            <Refused error={add.error} />
            <button type="submit" className="press press-main" disabled={add.isPending}>
              Add the lesson
            </button>
          </div>
        </form>
      </Sheet>
    </>
  );
}
