import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useMaterials } from "../data/library";
import { useAddStudent, useInstruments } from "../data/people";
import { Refused } from "./Problem";
import { Field, Sheet } from "./Sheet";

const weekdays = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];

/** A new student: who, which instrument, when the lesson is, and the book to begin with. */
export function AddStudent({ onAdded }: { onAdded: () => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="quiet mt-1 w-full justify-center" onClick={() => setOpen(true)}>
        Add a student
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="A new student"
        says="Only what the lesson needs is kept."
      >
        <Form
          onAdded={() => {
            setOpen(false);
            onAdded();
          }}
        />
      </Sheet>
    </>
  );
}

function Form({ onAdded }: { onAdded: () => void }) {
  // The ids are made with the form: sending it twice adds one student.
  const [ids] = useState(() => ({ student: ulid(), ladder: ulid() }));
  const [instrument, setInstrument] = useState<Schemas["Instrument"]>("piano");
  const instruments = useInstruments(instrument);
  const books = useMaterials(instrument);
  const sources = new Map(
    books.data?.filter((m) => m.source).map((m) => [m.source ?? "", m.from.split(",").slice(0, 2).join(",")]),
  );
  const navigate = useNavigate();
  const add = useAddStudent((student) => {
    onAdded();
    navigate(`/ladder/${student.ladder}`);
  });
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const text = (name: string) => String(f.get(name) ?? "");
    add.mutate({
      ...ids,
      name: text("name"),
      born: text("born"),
      instrument,
      weekday: Number(text("weekday")),
      startsAt: text("startsAt"),
      minutes: Number(text("minutes")),
      source: text("source") || undefined,
    });
  };
  return (
    <form onSubmit={send} className="grid gap-3 sm:grid-cols-2">
      <Field label="Name">
        <input name="name" required maxLength={200} autoComplete="off" />
      </Field>
      <Field label="Date of birth">
        <input name="born" type="date" required />
      </Field>
      <Field label="Instrument">
        <select value={instrument} onChange={(e) => setInstrument(e.target.value as Schemas["Instrument"])}>
          {instruments.map((i) => (
            <option key={i} value={i}>
              {i}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Book to begin with">
        <select name="source">
          <option value="">none yet</option>
          {[...sources].map(([id, title]) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Lesson day">
        <select name="weekday" defaultValue="1">
          {weekdays.map((d, i) => (
            <option key={d} value={i}>
              {d}
            </option>
          ))}
        </select>
      </Field>
      <div className="grid grid-cols-2 gap-3">
        <Field label="At">
          <input name="startsAt" type="time" required defaultValue="16:00" />
        </Field>
        <Field label="Minutes">
          <input name="minutes" type="number" min={10} max={180} required defaultValue={30} />
        </Field>
      </div>
      <div className="flex flex-col gap-3 sm:col-span-2">
        <Refused error={add.error} />
        <button type="submit" className="press press-main" disabled={add.isPending}>
          Add the student
        </button>
      </div>
    </form>
  );
}
