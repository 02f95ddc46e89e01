import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useSavePerson } from "../data/people";
import { bornAt } from "../data/time";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { Unsaved } from "../parts/Unsaved";

type Page = Schemas["StudentPage"];
/** All that can be changed: a field that is new in the contract has to be named here. */
type Form = Required<Schemas["PersonChange"]>;

const formOf = (p: Page): Form => ({
  name: p.name,
  called: p.called,
  born: p.born,
  bornAbout: p.bornAbout,
  notes: p.notes,
  since: p.since ?? "",
  contacts: p.contacts,
  version: p.version,
});

/** What of a form is not as it was; what others changed meanwhile, or a newer page knows, stays. */
export function changes(was: Form, now: Form): Schemas["PersonChange"] {
  const other = Object.entries(now).filter(
    ([key, value]) => JSON.stringify(value) !== JSON.stringify(was[key as keyof Form]),
  );
  return { ...Object.fromEntries(other), version: was.version };
}

/** Who a student is: all of it can be changed, always. */
export function PersonForm({ of }: { of: Page }) {
  const [form, setForm] = useState(() => formOf(of));
  const save = useSavePerson(of.student);
  const set = (x: Partial<Form>) => setForm({ ...form, ...x });
  const dirty = JSON.stringify(form) !== JSON.stringify(formOf(of));
  const contact = (i: number, x: Partial<Schemas["Contact"]>) =>
    set({ contacts: form.contacts.map((c, j) => (j === i ? { ...c, ...x } : c)) });
  const send = (e: FormEvent) => {
    e.preventDefault();
    save.mutate(changes(formOf(of), form));
  };
  return (
    <form onSubmit={send} className="grid content-start gap-3 sm:grid-cols-2" aria-label="Who it is">
      <Unsaved dirty={dirty && !save.isPending} />
      <Field label="Name">
        <input required maxLength={200} value={form.name} onChange={(e) => set({ name: e.target.value })} />
      </Field>
      <Field label="Called (optional)">
        <input
          maxLength={100}
          value={form.called}
          placeholder={of.first}
          onChange={(e) => set({ called: e.target.value })}
        />
      </Field>
      {form.bornAbout ? (
        <Field label="Age in years">
          <input
            type="number"
            required
            min={0}
            max={119}
            defaultValue={of.age}
            onChange={(e) => set({ born: bornAt(Number(e.target.value), of.today) })}
          />
        </Field>
      ) : (
        <Field label="Birthday">
          <input type="date" required value={form.born} onChange={(e) => set({ born: e.target.value })} />
        </Field>
      )}
      <Field label="In the studio since (optional)">
        <input type="date" value={form.since} onChange={(e) => set({ since: e.target.value })} />
      </Field>
      <label className="flex min-h-touch items-center gap-3 sm:col-span-2">
        <input
          type="checkbox"
          className="size-5 min-h-0 accent-working"
          checked={form.bornAbout}
          onChange={(e) => set({ bornAbout: e.target.checked })}
        />
        Only the age is known
      </label>
      <div className="sm:col-span-2">
        {of.notesElsewhere ? (
          <p className="fine">The notes are for the student’s own teacher.</p>
        ) : (
          <Field label="Notes for you only">
            <textarea
              rows={3}
              maxLength={4000}
              className="rounded border-[1.5px] border-soft bg-sheet px-3 py-2"
              value={form.notes}
              onChange={(e) => set({ notes: e.target.value })}
            />
          </Field>
        )}
      </div>
      <fieldset className="m-0 grid gap-2 border-0 p-0 sm:col-span-2">
        <legend className="font-head text-lg font-semibold">Contacts</legend>
        {form.contacts.length === 0 && (
          <p className="fine">Nobody yet. Messages go only to those who agreed.</p>
        )}
        {form.contacts.map((c, i) => (
          <div key={c.id} className="flex flex-wrap items-end gap-2 border-t border-line/60 pt-2">
            <Field label="Name">
              <input
                maxLength={200}
                value={c.name}
                onChange={(e) => contact(i, { name: e.target.value })}
                className="w-40"
              />
            </Field>
            <Field label="Relation">
              <input
                maxLength={60}
                value={c.relation}
                placeholder="mother"
                onChange={(e) => contact(i, { relation: e.target.value })}
                className="w-32"
              />
            </Field>
            <Field label="E-mail">
              <input
                type="email"
                maxLength={254}
                value={c.email}
                onChange={(e) => contact(i, { email: e.target.value })}
                className="w-56"
              />
            </Field>
            <label className="flex min-h-touch items-center gap-2">
              <input
                type="checkbox"
                className="size-5 min-h-0 accent-working"
                checked={c.messages}
                onChange={(e) => contact(i, { messages: e.target.checked })}
              />
              Agreed to messages
            </label>
            <Field label="Name on programmes">
              <select
                value={c.named ?? ""}
                onChange={(e) => contact(i, { named: e.target.value as Schemas["Said"] })}
              >
                <option value="">not asked yet</option>
                <option value="yes">yes</option>
                <option value="no">no</option>
              </select>
            </Field>
            <button
              type="button"
              className="quiet"
              onClick={() => set({ contacts: form.contacts.filter((_, j) => j !== i) })}
            >
              Remove<span className="sr-only"> {c.name}</span>
            </button>
          </div>
        ))}
        <button
          type="button"
          className="quiet justify-self-start"
          onClick={() =>
            set({
              contacts: [
                ...form.contacts,
                { id: ulid(), name: "", relation: "", email: "", messages: false },
              ],
            })
          }
        >
          Add a contact
        </button>
      </fieldset>
      <div className="grid gap-2 sm:col-span-2">
        <Refused error={save.error} />
        <button
          type="submit"
          className="press press-main justify-self-start"
          disabled={!dirty || save.isPending}
        >
          {dirty ? "Save" : "Saved"}
        </button>
      </div>
    </form>
  );
}
