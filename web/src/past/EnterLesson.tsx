import { type FormEvent, useMemo, useState } from "react";
import type { Schemas } from "../contract/client";
import { useChangeLesson } from "../data/dates";
import { useAppend } from "../data/entries";
import { useDraft } from "../data/useDraft";
import { firstName, markNames, ratingNames } from "../data/words";
import { MarkGlyph } from "../parts/MarkGlyph";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { clear, type Draft, entries, hear, mark, nothing } from "./enter";

/** A lesson that was given and never entered: what there was to hear is there, nothing is preset, and it is kept at once. */
export function EnterLesson({ of: p, done }: { of: Schemas["PastDay"]; done?: () => void }) {
  const ladder = p.student.ladder;
  const [draft, set] = useDraft<Draft>(`enter ${ladder} ${p.day}`, nothing);
  const append = useAppend(ladder);
  const change = useChangeLesson(done);
  // Sent once more after a network that failed, the same draft has the same ids and counts once.
  const list = useMemo(() => entries(draft, p.at), [draft, p.at]);
  const busy = append.isPending || change.isPending;
  const save = (e: FormEvent) => {
    e.preventDefault();
    append.mutate(list, {
      onSuccess: () => {
        set(nothing);
        done?.();
      },
    });
  };
  const working = p.pieces.filter((m) => m.working);
  const learned = p.pieces.filter((m) => !m.working);
  const name = p.student.called || firstName(p.student.name);
  return (
    <form onSubmit={save} className="mt-4 grid gap-5">
      {p.set.length > 0 && (
        <p>
          <span className="fine">Set for it:</span> {p.set.map((title) => `“${title}”`).join(", ")}
        </p>
      )}
      {working.map((m) => (
        <Working key={m.material} of={m} draft={draft} set={set} />
      ))}
      {working.length === 0 && <p className="fine">No piece was in work.</p>}
      {learned.length > 0 && <Learned pieces={learned} draft={draft} set={set} />}
      <div className="grid gap-3 sm:grid-cols-2">
        {p.begin.length > 0 && (
          <Field label="A piece was begun">
            <select value={draft.begun} onChange={(e) => set({ ...draft, begun: e.target.value })}>
              <option value="">none</option>
              {p.begin.map((b) => (
                <option key={b.id} value={b.id}>
                  {b.name}
                </option>
              ))}
            </select>
          </Field>
        )}
        <Field label="Note">
          <input
            value={draft.note}
            maxLength={300}
            autoComplete="off"
            onChange={(e) => set({ ...draft, note: e.target.value })}
          />
        </Field>
        <Field label="Reminder for the next lesson">
          <input
            value={draft.bring}
            maxLength={300}
            autoComplete="off"
            onChange={(e) => set({ ...draft, bring: e.target.value })}
          />
        </Field>
      </div>
      <div className="flex flex-wrap gap-2">
        <button type="submit" className="press press-main" disabled={busy || list.length === 0}>
          Save this lesson
        </button>
        {p.lesson && (
          <>
            <NotHeld
              says={`${name} did not come`}
              busy={busy}
              act={() => send(change, p, { what: "cancel", by: "student", late: true })}
            />
            <NotHeld
              says="I cancelled it"
              busy={busy}
              act={() => send(change, p, { what: "cancel", by: "teacher" })}
            />
          </>
        )}
      </div>
      <Refused error={append.error ?? change.error} />
    </form>
  );
}

const send = (
  change: ReturnType<typeof useChangeLesson>,
  p: Schemas["PastDay"],
  how: Schemas["LessonChange"],
) => p.lesson && change.mutate({ ladder: p.student.ladder, lesson: p.lesson.lesson, change: how });

/** A lesson that did not take place: asked once more, because nothing of it can be entered then. */
function NotHeld(props: { says: string; busy: boolean; act: () => void }) {
  const [sure, setSure] = useState(false);
  return (
    <button
      type="button"
      className={`press ${sure ? "border-cliff text-cliff" : ""}`}
      disabled={props.busy}
      onClick={() => (sure ? props.act() : setSure(true))}
      onBlur={() => setSure(false)}
    >
      {sure ? "No lesson took place: sure?" : props.says}
    </button>
  );
}

type Of<T> = T & { draft: Draft; set: (d: Draft) => void };

/** A piece that was in work: each point gets one of the three marks, or none. */
function Working({ of: m, draft, set }: Of<{ of: Schemas["PastPiece"] }>) {
  const cleared = draft.cleared.includes(m.material);
  return (
    <section aria-label={m.title} className="border-l-4 border-working pl-3">
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <h3 className="text-lg">{m.title}</h3>
        <label className="flex min-h-touch items-center gap-2">
          <input
            type="checkbox"
            className="size-5 min-h-0 accent-working"
            checked={cleared}
            onChange={() => set(clear(draft, m.material))}
          />
          It was cleared
        </label>
      </div>
      <ul>
        {m.points.map((f) => (
          <li
            key={f.id}
            className="flex flex-wrap items-center justify-between gap-x-4 border-t border-line/60"
          >
            <span className="min-w-40 flex-1 py-1">{f.name}</span>
            <span className="flex">
              {(["none", "part", "full"] as const).map((to) => (
                <button
                  key={to}
                  type="button"
                  aria-pressed={draft.marks[m.material]?.[f.id] === to}
                  aria-label={`${f.name}: ${markNames[to]}`}
                  onClick={() => set(mark(draft, m.material, f.id, to))}
                  className="flex min-h-touch min-w-20 items-center justify-center gap-2 rounded border-2 border-transparent px-2 hover:bg-fold aria-pressed:border-working aria-pressed:bg-reach"
                >
                  <MarkGlyph mark={to} />
                  {markNames[to]}
                </button>
              ))}
            </span>
          </li>
        ))}
        {m.points.length === 0 && <li className="fine">It has no focus points.</li>}
      </ul>
    </section>
  );
}

/** Learned pieces that were heard again: chosen one by one, with how it went. */
function Learned({ pieces, draft, set }: Of<{ pieces: Schemas["PastPiece"][] }>) {
  const [chosen, setChosen] = useState<string[]>([]);
  const shown = pieces.filter((m) => chosen.includes(m.material) || draft.heard[m.material]);
  const left = pieces.filter((m) => !shown.includes(m));
  return (
    <section aria-label="Heard again" className="border-l-4 border-review pl-3">
      {shown.map((m) => (
        <div key={m.material} className="flex flex-wrap items-center justify-between gap-x-4">
          <span className="min-w-40 flex-1">{m.title}</span>
          <span className="flex flex-wrap">
            {ratingNames.map((word, i) => (
              <button
                key={word}
                type="button"
                aria-pressed={draft.heard[m.material] === i + 1}
                aria-label={`${m.title}: ${word}`}
                onClick={() => set(hear(draft, m.material, i + 1))}
                className="min-h-touch rounded border-2 border-transparent px-3 hover:bg-fold aria-pressed:border-review aria-pressed:bg-fold"
              >
                {word}
              </button>
            ))}
          </span>
        </div>
      ))}
      {left.length > 0 && (
        <Field label="A learned piece was heard">
          <select value="" onChange={(e) => setChosen([...chosen, e.target.value])}>
            <option value="">{shown.length ? "another …" : "none"}</option>
            {left.map((m) => (
              <option key={m.material} value={m.material}>
                {m.title}
              </option>
            ))}
          </select>
        </Field>
      )}
    </section>
  );
}
