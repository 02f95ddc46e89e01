import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useResetActivity, useSetActivity } from "../data/people";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

type Goal = Schemas["ActivityGoal"];

const box = "rounded border-[1.5px] border-soft bg-sheet px-3 py-2";

const blank: Goal = {
  id: "",
  name: "",
  from: 3,
  to: 6,
  options: [""],
  home: "",
  off: false,
  own: true,
  changed: false,
};

/** The activities of lessons without a piece: changed, added, switched off; the program's own can be had back. */
export function Activities({ goals }: { goals: Goal[] }) {
  const [open, setOpen] = useState<Goal>();
  const reset = useResetActivity();
  return (
    <section aria-label="Activities" className="mt-8 border-t border-line pt-5">
      <h2 className="text-[1.6rem]">Activities</h2>
      <p className="fine">
        What lessons of the very young are made of, and what the others have for ear and rhythm. Each goal has
        several ways, which take turns.
      </p>
      <ul className="mt-2 grid gap-x-8 md:grid-cols-2">
        {goals.map((g) => (
          <li
            key={g.id}
            className="flex items-start justify-between gap-3 border-t border-line/60 py-1.5 leading-tight"
          >
            <span className={g.off ? "text-soft line-through" : ""}>
              {g.name}
              <span className="fine block">
                {g.to >= 99 ? `from ${g.from} years` : `${g.from} to ${g.to} years`} · {g.options.length}{" "}
                {g.options.length === 1 ? "way" : "ways"}
                {g.own ? " · yours" : g.changed ? " · changed" : ""}
              </span>
            </span>
            <span className="flex shrink-0">
              {(g.changed || g.own) && (
                <button
                  type="button"
                  className="quiet"
                  disabled={reset.isPending}
                  onClick={() => reset.mutate(g.id)}
                >
                  {g.own ? "Remove" : "As it came"}
                  <span className="sr-only">: {g.name}</span>
                </button>
              )}
              <button type="button" className="quiet" onClick={() => setOpen(g)}>
                Change<span className="sr-only"> {g.name}</span>
              </button>
            </span>
          </li>
        ))}
      </ul>
      <Refused error={reset.error} />
      <button type="button" className="press mt-2" onClick={() => setOpen(blank)}>
        Add an activity
      </button>
      <Sheet
        open={open !== undefined}
        onOpenChange={(o) => !o && setOpen(undefined)}
        title={open?.id ? open.name : "A new activity"}
        says="One way a line; they take turns."
      >
        {open && <Form goal={open} done={() => setOpen(undefined)} />}
      </Sheet>
    </section>
  );
}

function Form({ goal, done }: { goal: Goal; done: () => void }) {
  const save = useSetActivity();
  const [id] = useState(() => goal.id || ulid().toLowerCase());
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    const text = (name: string) => String(data.get(name) ?? "").trim();
    save.mutate(
      {
        id,
        as: {
          name: text("name"),
          from: Number(text("from")),
          to: Number(text("to")),
          options: text("options")
            .split("\n")
            .map((o) => o.trim())
            .filter(Boolean),
          home: text("home"),
          off: data.get("off") !== null,
        },
      },
      { onSuccess: done },
    );
  };
  return (
    <form onSubmit={send} className="grid gap-3">
      <Field label="Name">
        <input name="name" required maxLength={80} defaultValue={goal.name} autoComplete="off" />
      </Field>
      <div className="grid grid-cols-2 gap-2">
        <Field label="From age">
          <input name="from" type="number" min={0} max={120} required defaultValue={goal.from} />
        </Field>
        <Field label="To age">
          <input name="to" type="number" min={0} max={120} required defaultValue={goal.to} />
        </Field>
      </div>
      <Field label="Ways, one a line">
        <textarea name="options" required rows={5} defaultValue={goal.options.join("\n")} className={box} />
      </Field>
      <Field label="At home, to the parent">
        <textarea name="home" rows={2} maxLength={300} defaultValue={goal.home} className={box} />
      </Field>
      <label className="flex min-h-touch items-center gap-2">
        <input type="checkbox" name="off" defaultChecked={goal.off} />
        Not used in this studio
      </label>
      <Refused error={save.error} />
      <button type="submit" className="press press-main" disabled={save.isPending}>
        Save
      </button>
    </form>
  );
}
