import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useLeave, useRemovePause, useSetPause } from "../data/people";
import { longDay } from "../data/words";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

/** Pauses, leaving and coming back: lessons rest, nothing is lost. */
export function Away({ of }: { of: Schemas["StudentPage"] }) {
  const [id, setID] = useState(ulid);
  const [leaving, setLeaving] = useState("");
  const set = useSetPause(of.student, () => setID(ulid()));
  const remove = useRemovePause(of.student);
  const leave = useLeave(of.student);
  const pause = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    set.mutate({ id, first: String(f.get("first")), last: String(f.get("last")) || undefined });
  };
  return (
    <section aria-label="Pause and leave">
      <h2>Pause and leave</h2>
      <ul>
        {of.pauses.map((p) => (
          <li
            key={p.id}
            className="flex flex-wrap items-center justify-between gap-2 border-t border-line/60"
          >
            <span>{p.words}</span>
            <button
              type="button"
              className="quiet"
              disabled={remove.isPending}
              onClick={() => remove.mutate(p.id)}
            >
              Remove the pause
            </button>
          </li>
        ))}
      </ul>
      {of.left ? (
        <button
          type="button"
          className="press press-main mt-2"
          disabled={leave.isPending}
          onClick={() => leave.mutate(undefined)}
        >
          {of.first} is back
        </button>
      ) : (
        <>
          <form onSubmit={pause} className="mt-2 flex flex-wrap items-end gap-2">
            <Field label="No lessons from">
              <input name="first" type="date" required defaultValue={of.today} />
            </Field>
            <Field label="until (empty: further notice)">
              <input name="last" type="date" />
            </Field>
            <button type="submit" className="press" disabled={set.isPending}>
              Pause
            </button>
          </form>
          <form
            className="mt-3 flex flex-wrap items-end gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              setLeaving(String(new FormData(e.currentTarget).get("from")));
            }}
          >
            <Field label="Leaves on">
              <input name="from" type="date" required defaultValue={of.today} />
            </Field>
            <button type="submit" className="press" disabled={leave.isPending}>
              {of.first} leaves
            </button>
          </form>
          <Sheet
            open={leaving !== ""}
            onOpenChange={(open) => !open && setLeaving("")}
            title={leaving && `Does ${of.first} leave on ${longDay(leaving)}?`}
            says="There are no lessons from that day on, and the family’s weeks end. Everything is kept, and it can be taken back."
          >
            <button
              type="button"
              className="press press-main"
              disabled={leave.isPending}
              onClick={() => leave.mutate(leaving, { onSuccess: () => setLeaving("") })}
            >
              Yes, {of.first} leaves
            </button>
            <Refused error={leave.error} />
          </Sheet>
          <p className="fine mt-1">
            A student can return as if nothing had happened, for as long as your studio keeps what was (see
            Account).
          </p>
        </>
      )}
      <Refused error={set.error ?? remove.error ?? leave.error} />
    </section>
  );
}
