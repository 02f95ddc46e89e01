import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useRemoveTreat, useSetTreat, useTreats } from "../data/known";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";

/** What was promised for a piece or for some more; families see it quietly. */
export function Treats({ ladder, rungs }: { ladder: string; rungs: Schemas["Rung"][] }) {
  const treats = useTreats(ladder);
  const [id, setID] = useState(ulid);
  const set = useSetTreat(ladder, () => setID(ulid()));
  const remove = useRemoveTreat(ladder);
  const open = rungs.filter((r) => r.layer !== "review" && !r.aside);
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const f = new FormData(form);
    const what = String(f.get("for"));
    set.mutate(
      {
        id,
        words: String(f.get("words")),
        ...(what.startsWith("n") ? { pieces: Number(what.slice(1)) } : { material: what }),
      },
      { onSuccess: () => form.reset() },
    );
  };
  return (
    <section aria-label="Treats" className="mt-8 border-t border-line pt-4">
      <h2 className="text-lg">Treats</h2>
      <ul>
        {treats.data?.map((t) => (
          <li key={t.id} className="flex flex-wrap items-center gap-x-3 border-t border-line/60">
            <span className="min-w-0 flex-1">
              {t.words} <span className={t.earned && !t.given ? "text-good" : "fine"}>{t.says}</span>
            </span>
            {t.earned && !t.given && (
              <button
                type="button"
                className="quiet"
                onClick={() => set.mutate({ id: t.id, words: t.words, pieces: 1, given: true })}
              >
                It was had
              </button>
            )}
            <button type="button" className="quiet" onClick={() => remove.mutate(t.id)}>
              Remove<span className="sr-only"> {t.words}</span>
            </button>
          </li>
        ))}
      </ul>
      <form onSubmit={send} className="mt-2 grid gap-2">
        <Field label="Promise (optional)">
          <input
            name="words"
            required
            maxLength={200}
            placeholder="ice cream at the pier"
            autoComplete="off"
          />
        </Field>
        <Field label="for">
          <select name="for" className="min-w-0">
            {[1, 2, 3, 5, 10].map((n) => (
              <option key={n} value={`n${n}`}>
                {n === 1 ? "one more cleared piece" : `${n} more cleared pieces`}
              </option>
            ))}
            {open.map((r) => (
              <option key={r.material} value={r.material}>
                {r.title}
              </option>
            ))}
          </select>
        </Field>
        <button type="submit" className="press" disabled={set.isPending}>
          Promise it
        </button>
      </form>
      <Refused error={set.error ?? remove.error} />
    </section>
  );
}
