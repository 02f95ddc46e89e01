import { type FormEvent, useState } from "react";
import { useSearchParams } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useResetExerciseType, useSetExerciseType } from "../data/technique";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

type ExerciseType = Schemas["ExerciseType"];
type Fault = Schemas["WatchedFault"];

const families: Record<string, string> = {
  keyboard: "Keys",
  bowed: "Bowed strings",
  plucked: "Plucked strings",
};

/** The goals and faults of exercises: changed, added, switched off; the program's own can be had back. */
export function Exercises({ types }: { types: ExerciseType[] }) {
  const [search] = useSearchParams();
  const [open, setOpen] = useState(types.find((t) => t.id === search.get("exercise")));
  const reset = useResetExerciseType();
  const groups = [...new Set(types.flatMap((t) => t.families))];
  return (
    <section aria-label="Goals of exercises" className="mt-8 border-t border-line pt-5">
      <h2 className="text-[1.6rem]">Goals of exercises</h2>
      <p className="fine">
        Each step has three goals, read before each practice, and each exercise has its usual faults.
      </p>
      {groups.map((family) => (
        <details key={family} className="mt-2 border-t border-line/60">
          <summary className="min-h-touch cursor-pointer py-3 font-semibold">
            {families[family] ?? family}
            {types.some((t) => t.changed && t.families.includes(family)) && (
              <span className="fine ml-2 font-normal">changed</span>
            )}
          </summary>
          <ul className="grid gap-x-8 md:grid-cols-2">
            {types
              .filter((t) => t.families.includes(family))
              .map((t) => (
                <li key={t.id} className="flex items-center justify-between gap-3 border-t border-line/60">
                  <span className="leading-tight">
                    {t.name}
                    {t.changed && <span className="fine"> · changed</span>}
                  </span>
                  <span className="flex shrink-0">
                    {t.changed && (
                      <button
                        type="button"
                        className="quiet"
                        disabled={reset.isPending}
                        onClick={() => reset.mutate(t.id)}
                      >
                        As it came<span className="sr-only">: {t.name}</span>
                      </button>
                    )}
                    <button type="button" className="quiet" onClick={() => setOpen(t)}>
                      Change<span className="sr-only"> goals and faults of {t.name}</span>
                    </button>
                  </span>
                </li>
              ))}
          </ul>
        </details>
      ))}
      <Refused error={reset.error} />
      <Sheet
        open={open !== undefined}
        onOpenChange={(o) => !o && setOpen(undefined)}
        title={open?.name ?? ""}
        says="Pieces, weeks and printed pages say it as you write it here."
      >
        {open && <Form type={open} done={() => setOpen(undefined)} />}
      </Sheet>
    </section>
  );
}

function Form({ type, done }: { type: ExerciseType; done: () => void }) {
  const save = useSetExerciseType();
  const [faults, setFaults] = useState(type.faults);
  const set = (i: number, f: Partial<Fault>) =>
    setFaults(faults.map((x, k) => (k === i ? { ...x, ...f } : x)));
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const data = new FormData(e.currentTarget);
    save.mutate(
      {
        id: type.id,
        as: {
          steps: type.steps.map((s) => ({ step: s.step, goals: data.getAll(s.step).map(String) })),
          faults,
        },
      },
      { onSuccess: done },
    );
  };
  return (
    <form onSubmit={send} className="grid gap-4">
      {type.steps.map((s) => (
        <fieldset key={s.step} className="m-0 grid gap-1 border-0 p-0">
          <legend className="font-semibold">{s.name}</legend>
          {s.goals.map((g, i) => (
            <input
              // biome-ignore lint/suspicious/noArrayIndexKey: three places, which never move
              key={i}
              name={s.step}
              aria-label={`Goal ${i + 1} of ${s.name}`}
              required
              maxLength={120}
              defaultValue={g}
              autoComplete="off"
            />
          ))}
        </fieldset>
      ))}
      <h3 className="border-t border-line pt-3">Usual faults</h3>
      {faults.map((f, i) => (
        <div key={f.id} className={`grid gap-1 ${f.off ? "opacity-60" : ""}`}>
          <Field label="What it is">
            <input
              required
              maxLength={200}
              value={f.text}
              onChange={(e) => set(i, { text: e.target.value })}
            />
          </Field>
          <Field label="How it is seen or heard">
            <input
              required
              maxLength={200}
              value={f.look}
              onChange={(e) => set(i, { look: e.target.value })}
            />
          </Field>
          <label className="flex min-h-touch items-center gap-2">
            <input type="checkbox" checked={f.off} onChange={(e) => set(i, { off: e.target.checked })} />
            Not watched for in this studio
          </label>
        </div>
      ))}
      <button
        type="button"
        className="press"
        onClick={() => setFaults([...faults, { id: ulid().toLowerCase(), text: "", look: "", off: false }])}
      >
        Add a fault
      </button>
      <Refused error={save.error} />
      <button type="submit" className="press press-main" disabled={save.isPending}>
        Save
      </button>
    </form>
  );
}
