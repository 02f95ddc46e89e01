import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import { useAddHoliday, useHolidays, useRemoveHoliday } from "../data/people";
import { longDay } from "../data/words";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { HolidaysFromFile } from "./HolidaysFromFile";

/** Days without lessons: every date on every ladder goes round them. */
export function Holidays() {
  const holidays = useHolidays();
  const [id, setID] = useState(ulid);
  const add = useAddHoliday(() => setID(ulid()));
  const remove = useRemoveHoliday();
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const text = (name: string) => String(new FormData(form).get(name)).trim();
    add.mutate(
      { id, name: text("name"), first: text("first"), last: text("last") },
      { onSuccess: () => form.reset() },
    );
  };
  return (
    <section aria-label="Days without lessons">
      <h2>Days without lessons</h2>
      <p className="fine">No lessons on these days; home practice goes on.</p>
      {holidays.isPending && <Waiting />}
      {holidays.error && <Problem error={holidays.error} />}
      <ul className="mt-2">
        {holidays.data?.map((h) => (
          <li key={h.id} className="flex items-center justify-between gap-2 border-t border-line/60 py-1">
            <span>
              {h.name}
              <span className="fine block">
                {longDay(h.first)} – {longDay(h.last)}
              </span>
            </span>
            <button
              type="button"
              className="quiet"
              disabled={remove.isPending}
              onClick={() => remove.mutate(h.id)}
            >
              Remove<span className="sr-only"> {h.name}</span>
            </button>
          </li>
        ))}
        {holidays.data?.length === 0 && <li className="fine">None so far.</li>}
      </ul>
      <form onSubmit={send} className="mt-3 grid gap-2">
        <Field label="Name">
          <input name="name" required maxLength={100} placeholder="Winter break" autoComplete="off" />
        </Field>
        <div className="grid grid-cols-2 gap-2">
          <Field label="First day">
            <input name="first" type="date" required className="min-w-0" />
          </Field>
          <Field label="Last day">
            <input name="last" type="date" required className="min-w-0" />
          </Field>
        </div>
        <button type="submit" className="press" disabled={add.isPending}>
          Add it
        </button>
      </form>
      <Refused error={add.error ?? remove.error} />
      <HolidaysFromFile />
    </section>
  );
}
