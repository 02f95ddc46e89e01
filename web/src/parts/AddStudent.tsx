import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { ulid } from "ulid";
import { useMaterials } from "../data/library";
import { useAddStudent, useInstruments, useToday } from "../data/people";
import { bornAt } from "../data/time";
import { newSlot, SlotRows } from "../student/SlotRows";
import { Refused } from "./Problem";
import { Field, Sheet } from "./Sheet";

/** A new student: who, which instrument, when the lesson is, and the book to begin with. */
export function AddStudent(props: { onAdded?: () => void; look?: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className={props.look ?? "quiet mt-1 w-full justify-center"}
        onClick={() => setOpen(true)}
      >
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
            props.onAdded?.();
          }}
        />
      </Sheet>
    </>
  );
}

function Form({ onAdded }: { onAdded: () => void }) {
  // The ids are made with the form: sending it twice adds one student.
  const [ids] = useState(() => ({ student: ulid(), ladder: ulid() }));
  const [instrument, setInstrument] = useState("piano");
  const [other, setOther] = useState(false);
  const [byAge, setByAge] = useState(false);
  const [slots, setSlots] = useState(() => [newSlot()]);
  const today = useToday();
  const instruments = useInstruments(instrument);
  const books = useMaterials(instrument, !other);
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
      born: byAge ? bornAt(Number(text("age")), today) : text("born"),
      bornAbout: byAge,
      instrument,
      // Asked whether it is meant so, and pressed once more.
      sure: add.error !== null && add.variables?.instrument === instrument,
      slots,
      source: text("source") || undefined,
    });
  };
  return (
    <form onSubmit={send} className="grid gap-3 sm:grid-cols-2">
      <Field label="Name">
        <input name="name" required maxLength={200} autoComplete="off" />
      </Field>
      {byAge ? (
        <Field label="Age in years">
          <input name="age" type="number" min={0} max={119} required />
        </Field>
      ) : (
        <Field label="Birthday">
          <input name="born" type="date" required />
        </Field>
      )}
      <label className="flex min-h-touch items-center gap-3 sm:col-start-2">
        <input
          type="checkbox"
          className="size-5 min-h-0 accent-working"
          checked={byAge}
          onChange={(e) => setByAge(e.target.checked)}
        />
        Only the age is known
      </label>
      <Field label="Instrument">
        <select
          value={other ? "" : instrument}
          className="min-w-0"
          onChange={(e) => {
            setOther(e.target.value === "");
            setInstrument(e.target.value);
          }}
        >
          {instruments.map((i) => (
            <option key={i} value={i}>
              {i}
            </option>
          ))}
          <option value="">another …</option>
        </select>
      </Field>
      {other ? (
        <Field label="Which instrument">
          <input
            required
            maxLength={40}
            value={instrument}
            onChange={(e) => setInstrument(e.target.value)}
            autoComplete="off"
          />
        </Field>
      ) : (
        <Field label="Book to begin with">
          <select name="source" className="min-w-0">
            <option value="">none yet</option>
            {[...sources].map(([id, title]) => (
              <option key={id} value={id}>
                {title}
              </option>
            ))}
          </select>
        </Field>
      )}
      <div className="sm:col-span-2">
        <SlotRows slots={slots} onChange={setSlots} />
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
