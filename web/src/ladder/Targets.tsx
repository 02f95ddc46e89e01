import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useAskTarget, useKeepTarget, useRemoveTarget } from "../data/ladder";
import { longDay } from "../data/words";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";

/** Dates to be ready for, worked backwards; and how review stands against its aim. */
export function Targets({ view }: { view: Schemas["LadderView"] }) {
  return (
    <>
      <ReviewShare review={view.review} />
      {view.targets.map((t) => (
        <TargetNote key={t.id} target={t} ladder={view.student.ladder} />
      ))}
      <NewTarget view={view} />
    </>
  );
}

/** The share of review as a stroke against its aim. */
export function ReviewShare({ review: r }: { review: Schemas["ReviewState"] }) {
  return (
    <section aria-label="Review" className="mb-5">
      <h2>Review</h2>
      <svg viewBox="0 0 320 26" className="mt-1 w-full" role="img" aria-label={r.words}>
        <rect x="0" y="6" width="320" height="12" rx="6" fill="var(--color-fold)" />
        <rect x="0" y="6" width={Math.max(4, 320 * r.share)} height="12" rx="6" fill="var(--color-review)" />
        <path d={`M${320 * r.aim} 0V26`} stroke="var(--color-ink)" strokeWidth="2.5" />
      </svg>
      <p>
        {r.words}.{r.fading > 0 && ` ${r.fading} of ${r.pieces} learned pieces are fading.`}
      </p>
    </section>
  );
}

function TargetNote({ target: t, ladder }: { target: Schemas["TargetBrief"]; ladder: string }) {
  const remove = useRemoveTarget(ladder, t.id);
  return (
    <section aria-label={t.name} className="mb-5 border-t border-line pt-3">
      <p className="fine">{longDay(t.day)}</p>
      <h2>{t.name}</h2>
      <Answer verdict={t.verdict} />
      <button
        type="button"
        className="quiet -ml-2"
        disabled={remove.isPending}
        onClick={() => remove.mutate()}
      >
        Remove this date
      </button>
      <Refused error={remove.error} />
    </section>
  );
}

/** The chance as a soft stroke with the aim on it, then what would change it. */
function Answer({ verdict: v, toggle }: { verdict: Schemas["Verdict"]; toggle?: (id: string) => void }) {
  return (
    <div>
      {v.sure > 0 && (
        <svg viewBox="0 0 320 26" className="mt-1 w-full" role="img" aria-label={v.sentence}>
          <defs>
            <linearGradient id="chance">
              <stop offset="0.75" stopColor="var(--color-working)" stopOpacity="0.85" />
              <stop offset="1" stopColor="var(--color-working)" stopOpacity="0.1" />
            </linearGradient>
          </defs>
          <rect x="0" y="6" width="320" height="12" rx="6" fill="var(--color-fold)" />
          <rect x="0" y="6" width={Math.max(6, 320 * v.chance)} height="12" rx="6" fill="url(#chance)" />
          <path d={`M${320 * v.sure} 0V26`} stroke="var(--color-ink)" strokeWidth="2.5" />
        </svg>
      )}
      <p className="font-semibold">{v.sentence}</p>
      {v.holidays.map((h) => (
        <label key={h.id} className="flex min-h-touch items-center gap-2">
          <input
            type="checkbox"
            className="size-5 min-h-0 accent-working"
            checked={!h.given}
            disabled={!toggle}
            onChange={() => toggle?.(h.id)}
          />
          no lessons in “{h.name}” ({h.lessons} {h.lessons === 1 ? "lesson" : "lessons"})
        </label>
      ))}
      {v.drops.length > 0 && (
        <ul>
          {v.drops.map((d) => (
            <li key={d.material}>
              Without “{d.title}” before it: {Math.round(100 * d.chance)} %.
            </li>
          ))}
        </ul>
      )}
      {v.sure > 0 && !v.begun && v.straight > v.chance + 0.005 && (
        <p>Begun in the next lesson, before everything else: {Math.round(100 * v.straight)} %.</p>
      )}
      {v.why.length > 0 && (
        <details>
          <summary className="fine min-h-touch content-center">Why?</summary>
          <ul className="list-disc pl-5">
            {v.why.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

function NewTarget({ view }: { view: Schemas["LadderView"] }) {
  const ladder = view.student.ladder;
  const [given, setGiven] = useState<string[]>([]);
  const [asked, setAsked] = useState<{ id: string; material: string; day: string; name: string }>();
  const ask = useAskTarget(ladder);
  const keep = useKeepTarget(ladder, () => {
    setAsked(undefined);
    ask.reset();
  });
  const open = view.rails.flatMap((r) => r.rungs.filter((x) => x.layer !== "review" && !x.aside));
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const q = {
      id: ulid(),
      material: String(form.get("material")),
      day: String(form.get("day")),
      name: String(form.get("name")).trim(),
    };
    setAsked(q);
    setGiven([]);
    ask.mutate({ material: q.material, day: q.day, given: [] });
  };
  const toggle = (holiday: string) => {
    if (!asked) return;
    const now = given.includes(holiday) ? given.filter((g) => g !== holiday) : [...given, holiday];
    setGiven(now);
    ask.mutate({ material: asked.material, day: asked.day, given: now });
  };
  return (
    <section aria-label="Add a performance date" className="border-t border-line pt-3">
      <h2>Add a performance date</h2>
      <form onSubmit={send} className="mt-2 grid gap-2">
        <Field label="What it is">
          <input name="name" required maxLength={100} defaultValue="Recital" autoComplete="off" />
        </Field>
        <Field label="The piece">
          <select name="material" required>
            {open.map((r) => (
              <option key={r.material} value={r.material}>
                {r.title}
              </option>
            ))}
          </select>
        </Field>
        <Field label="The day">
          <input name="day" type="date" required />
        </Field>
        <button type="submit" className="press" disabled={ask.isPending || open.length === 0}>
          Plan back from it
        </button>
      </form>
      <Refused error={ask.error ?? keep.error} />
      {asked && ask.data && (
        <div className="mt-3" aria-live="polite">
          <Answer verdict={ask.data} toggle={toggle} />
          <button
            type="button"
            className="press press-main mt-2 w-full"
            disabled={keep.isPending}
            onClick={() => keep.mutate(asked)}
          >
            Keep this date
          </button>
        </div>
      )}
    </section>
  );
}
