import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useResetMeetingActivity, useSetMeetingActivity } from "../data/meeting";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

type All = Schemas["MeetingActivities"];
type Activity = Schemas["MeetingActivityForm"];

const box = "rounded border-[1.5px] border-soft bg-sheet px-3 py-2";

const blank: Activity = {
  id: "",
  name: "",
  say: "",
  minutes: 4,
  from: 3,
  to: 12,
  part: { id: "tune", name: "" },
  family: "",
  shows: "",
  home: "",
  off: false,
  own: true,
  changed: false,
  outcomes: [],
};

/** What first meetings are made of, part by part: changed, added, left out; the program's own can be had back. */
export function Meetings({ all }: { all: All }) {
  const [open, setOpen] = useState<Activity>();
  const reset = useResetMeetingActivity();
  return (
    <section aria-label="First meetings" className="mt-8 border-t border-line pt-5">
      <h2 className="text-[1.6rem]">First meetings</h2>
      <p className="fine">
        A first meeting takes one activity from each part that fits the age and the instrument, then a second
        where minutes are left. Your own come first.
      </p>
      <ul className="mt-2 grid gap-x-8 md:grid-cols-2">
        {all.activities.map((a) => (
          <li
            key={a.id}
            className="flex items-start justify-between gap-3 border-t border-line/60 py-1.5 leading-tight"
          >
            <span className={`min-w-0 ${a.off ? "text-soft line-through" : ""}`}>
              <span className="break-words">{a.name}</span>
              <span className="fine block">
                {a.part.name} · {a.minutes} {a.minutes === 1 ? "minute" : "minutes"} ·{" "}
                {a.to >= 99 ? `from ${a.from} years` : `${a.from} to ${a.to} years`}
                {a.own ? " · yours" : a.off ? " · left out" : a.changed ? " · changed" : ""}
              </span>
            </span>
            <span className="flex shrink-0">
              {(a.changed || a.own) && (
                <button
                  type="button"
                  className="quiet"
                  disabled={reset.isPending}
                  onClick={() => reset.mutate(a.id)}
                >
                  {a.own ? "Remove" : "As it came"}
                  <span className="sr-only">: {a.name}</span>
                </button>
              )}
              <button type="button" className="quiet" onClick={() => setOpen(a)}>
                Change<span className="sr-only"> {a.name}</span>
              </button>
            </span>
          </li>
        ))}
      </ul>
      <Refused error={reset.error} />
      <button type="button" className="press mt-2" onClick={() => setOpen(blank)}>
        Add to first meetings
      </button>
      <Sheet
        open={open !== undefined}
        onOpenChange={(o) => !o && setOpen(undefined)}
        title={open?.id ? open.name : "A new activity for first meetings"}
        says={
          open?.outcomes.length
            ? `What can come of it: ${open.outcomes.join(", ")}.`
            : "What can come of it: it came, nearly, not yet."
        }
      >
        {open && <Form of={open} all={all} done={() => setOpen(undefined)} />}
      </Sheet>
    </section>
  );
}

function Form({ of, all, done }: { of: Activity; all: All; done: () => void }) {
  const save = useSetMeetingActivity();
  const [id] = useState(() => of.id || ulid().toLowerCase());
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    const text = (name: string, otherwise = "") => String(data.get(name) ?? otherwise).trim();
    save.mutate(
      {
        id,
        as: {
          name: text("name"),
          say: text("say"),
          minutes: Number(text("minutes")),
          from: Number(text("from")),
          to: Number(text("to")),
          part: text("part", of.part.id),
          family: text("family", of.family),
          shows: text("shows", of.shows),
          home: text("home", of.home),
          off: data.get("off") !== null,
        },
      },
      { onSuccess: done },
    );
  };
  return (
    <form onSubmit={send} className="grid gap-3">
      <Field label="Name">
        <input name="name" required maxLength={80} defaultValue={of.name} autoComplete="off" />
      </Field>
      <Field label="What you say">
        <textarea name="say" required rows={2} maxLength={300} defaultValue={of.say} className={box} />
      </Field>
      <div className="grid grid-cols-3 gap-2">
        <Field label="Minutes">
          <input name="minutes" type="number" min={1} max={30} required defaultValue={of.minutes} />
        </Field>
        <Field label="From age">
          <input name="from" type="number" min={0} max={120} required defaultValue={of.from} />
        </Field>
        <Field label="To age">
          <input name="to" type="number" min={0} max={120} required defaultValue={of.to} />
        </Field>
      </div>
      {of.own && (
        <>
          <div className="grid grid-cols-2 gap-2">
            <Pick name="part" label="Part of the meeting" value={of.part.id} of={all.parts} />
            <Pick name="family" label="For" value={of.family} of={all.families} none="any instrument" />
          </div>
          <Pick name="shows" label="When it came, it shows" value={of.shows} of={all.skills} none="nothing" />
          <Pick name="home" label="At home it becomes" value={of.home} of={all.goals} none="nothing" />
        </>
      )}
      <label className="flex min-h-touch items-center gap-2">
        <input type="checkbox" name="off" defaultChecked={of.off} />
        Left out of first meetings
      </label>
      <Refused error={save.error} />
      <button type="submit" className="press press-main" disabled={save.isPending}>
        Save
      </button>
    </form>
  );
}

function Pick(props: { name: string; label: string; value: string; of: Schemas["Choice"][]; none?: string }) {
  return (
    <Field label={props.label}>
      <select name={props.name} defaultValue={props.value} className="w-full min-w-0">
        {props.none && <option value="">{props.none}</option>}
        {props.of.map((x) => (
          <option key={x.id} value={x.id}>
            {x.name}
          </option>
        ))}
      </select>
    </Field>
  );
}
