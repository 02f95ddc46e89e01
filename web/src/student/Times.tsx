import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useSetSlots } from "../data/dates";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";
import { SlotRows } from "./SlotRows";

/** Other lesson times from a day on; those before are kept as they were. */
export function Times({ of, today }: { of: Schemas["StudentLadder"]; today: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="quiet" onClick={() => setOpen(true)}>
        Change the lesson times
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Lesson times"
        says={`${of.instrument}. The lessons before that day stay as they were.`}
      >
        <Form of={of} today={today} done={() => setOpen(false)} />
      </Sheet>
    </>
  );
}

function Form({ of, today, done }: { of: Schemas["StudentLadder"]; today: string; done: () => void }) {
  const [slots, setSlots] = useState<Schemas["NewSlot"][]>(
    of.slots.map(({ weekday, startsAt, minutes, every, until }) => ({
      id: ulid(),
      weekday,
      startsAt,
      minutes,
      every,
      until,
    })),
  );
  const [from, setFrom] = useState(today);
  const save = useSetSlots(done);
  const send = (e: FormEvent) => {
    e.preventDefault();
    save.mutate({ ladder: of.ladder, from, slots });
  };
  return (
    <form onSubmit={send} className="grid gap-3">
      <Field label="From">
        <input type="date" required value={from} onChange={(e) => setFrom(e.target.value)} />
      </Field>
      <SlotRows slots={slots} onChange={setSlots} />
      <Refused error={save.error} />
      <button type="submit" className="press press-main" disabled={save.isPending}>
        Save the lesson times
      </button>
    </form>
  );
}
