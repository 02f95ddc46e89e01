import { type FormEvent, useState } from "react";
import { entry, useAppend } from "../data/entries";
import type { Entry } from "../data/outbox";
import { usePastDay } from "../data/usePastDay";
import { longDay, ratingNames } from "../data/words";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { EnterLesson } from "./EnterLesson";
import { EntryLine } from "./EntryLine";

/** One lesson that was, entry by entry: each can be taken back or changed, and what was forgotten is added. */
export function DayOf({ ladder, day, open }: { ladder: string; day: string; open: (day: string) => void }) {
  const past = usePastDay(ladder, day);
  const append = useAppend(ladder);
  const [kept, setKept] = useState(0);
  if (past.isPending) return <Waiting />;
  if (past.error) return <Problem error={past.error} again={() => past.refetch()} />;
  const p = past.data;
  return (
    <section aria-label={longDay(day)}>
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2>{longDay(day)}</h2>
        <nav aria-label="Lessons beside this one" className="flex">
          {p.last && (
            <button type="button" className="quiet" onClick={() => open(p.last)}>
              ‹ The lesson before
            </button>
          )}
          {p.next && (
            <button type="button" className="quiet" onClick={() => open(p.next)}>
              The lesson after ›
            </button>
          )}
        </nav>
      </div>
      <p className="say">{p.words}</p>
      {p.lesson?.became === "notEntered" && <EnterLesson key={p.day} of={p} />}
      <ol className="mt-3">
        {p.entries.map((e) => (
          <EntryLine key={e.entry.id} of={e} write={(list) => append.mutate(list)} busy={append.isPending} />
        ))}
      </ol>
      {p.taken.length > 0 && (
        <ul className="mt-1" aria-label="Taken back">
          {p.taken.map((line) => (
            <li key={line.id} className="flex items-center gap-3 text-soft">
              <span className="w-12" />
              <span className="min-w-0 flex-1 line-through">{line.text}</span>
              <button
                type="button"
                className="quiet shrink-0"
                disabled={append.isPending}
                aria-label={`Put back: ${line.text}`}
                onClick={() => append.mutate([entry("correction", { corrects: line.id })])}
              >
                Put back
              </button>
            </li>
          ))}
        </ul>
      )}
      {/* What was typed stays until it is kept, whatever else is written meanwhile. */}
      {p.lesson?.became !== "notEntered" && (
        <Add
          key={kept}
          at={p.at}
          pieces={p.pieces}
          busy={append.isPending}
          write={(e) => append.mutate([e], { onSuccess: () => setKept(kept + 1) })}
        />
      )}
      <Refused error={append.error} />
    </section>
  );
}

const kinds = [
  ["note", "A note"],
  ["bring", "Something to bring"],
  ["wentWell", "What went well"],
  ["assigned", "A piece was begun"],
  ["mark", "A focus point"],
  ["hearing", "A learned piece was heard"],
  ["cleared", "A piece was cleared"],
] as const;

function Add(props: {
  at: string;
  pieces: { material: string; title: string; points: { id: string; name: string }[] }[];
  busy: boolean;
  write: (e: Entry) => void;
}) {
  const [kind, setKind] = useState<(typeof kinds)[number][0]>("note");
  const [picked, setMaterial] = useState("");
  const material = (props.pieces.find((p) => p.material === picked) ?? props.pieces[0])?.material ?? "";
  const worded = kind === "note" || kind === "bring" || kind === "wentWell";
  const points = props.pieces.find((p) => p.material === material)?.points ?? [];
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const text = String(f.get("text") ?? "").trim();
    const fields: Partial<Entry> = worded ? { text } : { material };
    if (kind === "hearing") fields.rating = Number(f.get("rating"));
    if (kind === "mark") {
      fields.focus = String(f.get("focus"));
      fields.mark = String(f.get("mark")) as Entry["mark"];
    }
    props.write({ ...entry(kind, fields), at: props.at });
  };
  return (
    <form onSubmit={send} className="mt-5 flex flex-wrap items-end gap-2 border-t border-line pt-3">
      <Field label="Add">
        <select value={kind} onChange={(e) => setKind(e.target.value as typeof kind)}>
          {kinds.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </Field>
      {worded ? (
        <div className="min-w-56 flex-1">
          <Field label="In words">
            <input name="text" required maxLength={300} autoComplete="off" className="w-full" />
          </Field>
        </div>
      ) : (
        <Field label="Piece">
          <select
            required
            value={material}
            onChange={(e) => setMaterial(e.target.value)}
            className="max-w-60"
          >
            {props.pieces.map((p) => (
              <option key={p.material} value={p.material}>
                {p.title}
              </option>
            ))}
          </select>
        </Field>
      )}
      {kind === "hearing" && (
        <Field label="It went">
          <select name="rating" defaultValue="3">
            {ratingNames.map((says, i) => (
              <option key={says} value={i + 1}>
                {i + 1}, {says}
              </option>
            ))}
          </select>
        </Field>
      )}
      {kind === "mark" && (
        <>
          <Field label="Point">
            <select name="focus" required className="max-w-52">
              {points.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Mark">
            <select name="mark" defaultValue="full">
              <option value="none">not yet</option>
              <option value="part">part</option>
              <option value="full">full</option>
            </select>
          </Field>
        </>
      )}
      <button type="submit" className="press press-main" disabled={props.busy || (!worded && !material)}>
        Add it
      </button>
    </form>
  );
}
