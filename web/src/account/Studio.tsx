import type { FormEvent } from "react";
import type { Schemas } from "../contract/client";
import { useSetStudio } from "../data/account";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { weekdayName } from "../student/SlotRows";

const zones = Intl.supportedValuesOf("timeZone");

const two = (n: number) => String(n).padStart(2, "0");
const clock = (minute: number) => `${two(Math.floor(minute / 60))}:${two(minute % 60)}`;
const minutes = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3, 5));

/** The studio itself: its name, its zone, how long the data of those who left stay, and all of it as one file. */
export function Studio({ studio: s }: { studio: Schemas["StudioSettings"] }) {
  const set = useSetStudio();
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    set.mutate({
      name: String(f.get("name")),
      timezone: String(f.get("timezone")),
      keepYears: Number(f.get("keepYears")),
      language: String(f.get("language")),
      firstDay: Number(f.get("firstDay")),
      letterhead: String(f.get("letterhead")),
      quietFrom: minutes(String(f.get("quietFrom"))),
      quietTo: minutes(String(f.get("quietTo"))),
    });
  };
  return (
    <section aria-label="The studio">
      <h2>The studio</h2>
      <form onSubmit={send} className="mt-2 grid max-w-md gap-3">
        <Field label="Name, as families read it">
          <input name="name" required maxLength={200} defaultValue={s.name} />
        </Field>
        <Field label="Time zone of the lessons">
          <select name="timezone" defaultValue={s.timezone}>
            {!zones.includes(s.timezone) && <option>{s.timezone}</option>}
            {zones.map((z) => (
              <option key={z}>{z}</option>
            ))}
          </select>
        </Field>
        <Field label="Under the name on papers and letters (up to 4 lines)">
          <textarea
            name="letterhead"
            rows={3}
            maxLength={330}
            defaultValue={s.letterhead}
            className="rounded border-[1.5px] border-soft bg-sheet px-3 py-2"
          />
        </Field>
        <div className="grid grid-cols-2 gap-3">
          <Field label="Families read in">
            <select name="language" defaultValue={s.language}>
              {s.languages?.map((l) => (
                <option key={l.id} value={l.id}>
                  {l.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="A week begins on">
            <select name="firstDay" defaultValue={s.firstDay}>
              {[1, 0, 6].map((d) => (
                <option key={d} value={d}>
                  {weekdayName(d)}
                </option>
              ))}
            </select>
          </Field>
        </div>
        <fieldset className="m-0 grid grid-cols-2 gap-3 border-0 p-0">
          <legend className="fine mb-1">Nothing is sent to families between these hours</legend>
          <Field label="From">
            <input type="time" name="quietFrom" required defaultValue={clock(s.quietFrom ?? 0)} />
          </Field>
          <Field label="Until">
            <input type="time" name="quietTo" required defaultValue={clock(s.quietTo ?? 0)} />
          </Field>
        </fieldset>
        <Field label="After a student leaves, data stay for">
          <select name="keepYears" defaultValue={s.keepYears}>
            {[1, 2, 3, 5, 10].map((n) => (
              <option key={n} value={n}>
                {n === 1 ? "one year" : `${n} years`}
              </option>
            ))}
            <option value={0}>ever</option>
          </select>
        </Field>
        <Refused error={set.error} />
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="press" disabled={set.isPending}>
            Save
          </button>
          <a className="quiet" href="/api/account/studio/export" download>
            Export everything
          </a>
          <span role="status" className="fine">
            {set.isSuccess && "Saved."}
          </span>
        </div>
      </form>
    </section>
  );
}
