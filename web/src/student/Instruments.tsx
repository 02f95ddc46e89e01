import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useAddInstrument, useChangeInstrument, useEndInstrument, useInstruments } from "../data/people";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";
import { Usual } from "../week/Usual";
import { Colleague } from "./Colleague";
import { newSlot, SlotRows } from "./SlotRows";
import { Times } from "./Times";

/** The instruments of a student, each with its own ladder, lesson times and practice. */
export function Instruments({ of }: { of: Schemas["StudentPage"] }) {
  return (
    <section aria-label="Instruments">
      <h2>Instruments and lessons</h2>
      {of.ladders.map((l) => (
        <Instrument key={l.ladder} of={l} page={of} />
      ))}
      <Add student={of.student} today={of.today} />
    </section>
  );
}

function Instrument({ of: l, page }: { of: Schemas["StudentLadder"]; page: Schemas["StudentPage"] }) {
  const end = useEndInstrument();
  return (
    <article className="mt-2 border-t border-line pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h3>
          <Link to={`/ladder/${l.ladder}`} className="capitalize hover:underline">
            {l.instrument}
          </Link>
          {l.state !== "active" && (
            <span className="fine ml-2">{l.state === "paused" ? "paused" : "ended"}</span>
          )}
        </h3>
        <nav className="flex flex-wrap" aria-label={l.instrument}>
          {[
            ["ladder", "Ladder"],
            ["progress", "Progress"],
            ["past", "Past lessons"],
            ["known", "Known before"],
            ["week", "Week"],
          ].map(([to, name]) => (
            <Link key={to} className="quiet" to={`/${to}/${l.ladder}`}>
              {name}
            </Link>
          ))}
        </nav>
      </div>
      <p>
        {l.lessons}
        {l.next && <span className="fine"> · next: {l.next}</span>}
      </p>
      <Colleague of={l} page={page} />
      {l.past.length > 0 && <p className="fine">Before: {l.past.join("; ")}</p>}
      <div className="flex flex-wrap">
        {l.state === "gone" && l.ended ? (
          <button
            type="button"
            className="quiet"
            disabled={end.isPending}
            onClick={() => end.mutate({ ladder: l.ladder })}
          >
            Take it up again
          </button>
        ) : (
          <>
            <Times of={l} today={page.today} />
            <Change of={l} />
            <button
              type="button"
              className="quiet"
              disabled={end.isPending}
              onClick={() => end.mutate({ ladder: l.ladder, from: page.today })}
            >
              Stop the {l.instrument}
            </button>
          </>
        )}
      </div>
      <Refused error={end.error} />
      {l.state !== "gone" && (
        <div className="mt-2">
          <Usual key={l.practice.version} ladder={l.ladder} practice={l.practice} name={page.first} />
        </div>
      )}
    </article>
  );
}

function Change({ of }: { of: Schemas["StudentLadder"] }) {
  const [open, setOpen] = useState(false);
  const [next] = useState(ulid);
  const instruments = useInstruments(of.instrument);
  const change = useChangeInstrument(() => setOpen(false));
  return (
    <>
      <button type="button" className="quiet" onClick={() => setOpen(true)}>
        Change the instrument
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Another instrument"
        says={
          of.begun
            ? `The ${of.instrument} ladder is kept as it is. The new one begins today, at the same lesson times.`
            : "Nothing was recorded yet: the ladder gets the other instrument."
        }
      >
        <form
          className="grid gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            const instrument = String(new FormData(e.currentTarget).get("instrument"));
            const sure = change.error !== null && change.variables?.instrument === instrument;
            change.mutate({ ladder: of.ladder, instrument, next, sure });
          }}
        >
          <Field label="Instrument">
            <input name="instrument" list="instruments" required maxLength={40} autoComplete="off" />
          </Field>
          <datalist id="instruments">
            {instruments.map((i) => (
              <option key={i} value={i} />
            ))}
          </datalist>
          <Refused error={change.error} />
          <button type="submit" className="press press-main" disabled={change.isPending}>
            Change it
          </button>
        </form>
      </Sheet>
    </>
  );
}

function Add({ student, today }: { student: string; today: string }) {
  const [open, setOpen] = useState(false);
  const [ladder, setLadder] = useState(ulid);
  const [slots, setSlots] = useState(() => [newSlot()]);
  const instruments = useInstruments("piano");
  const add = useAddInstrument(student, () => {
    setOpen(false);
    setLadder(ulid());
  });
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const instrument = String(f.get("instrument"));
    const sure = add.error !== null && add.variables?.instrument === instrument;
    add.mutate({ ladder, instrument, sure, from: String(f.get("from")), slots });
  };
  return (
    <>
      <button type="button" className="press mt-3" onClick={() => setOpen(true)}>
        Add an instrument
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Another instrument"
        says="It has a ladder and lesson times of its own."
      >
        <form onSubmit={send} className="grid gap-3">
          <Field label="Instrument">
            <input name="instrument" list="more-instruments" required maxLength={40} autoComplete="off" />
          </Field>
          <datalist id="more-instruments">
            {instruments.map((i) => (
              <option key={i} value={i} />
            ))}
          </datalist>
          <Field label="From">
            <input name="from" type="date" required defaultValue={today} />
          </Field>
          <SlotRows slots={slots} onChange={setSlots} />
          <Refused error={add.error} />
          <button type="submit" className="press press-main" disabled={add.isPending}>
            Add it
          </button>
        </form>
      </Sheet>
    </>
  );
}
