import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useLearned, useUseLearned } from "../data/progress";
import { Problem, Refused } from "../parts/Problem";

/** What the lessons of this studio teach, beside the table; used only by the teacher's choice. */
export function Learned() {
  const learned = useLearned();
  const use = useUseLearned();
  const [all, setAll] = useState(false);
  if (learned.isPending) return null;
  if (learned.error) return <Problem error={learned.error} again={() => learned.refetch()} />;
  const l = learned.data;
  const shown = all ? l.skills : l.skills.filter((s) => s.sure);
  return (
    <section aria-label="What your lessons teach" className="border-t border-line pt-5 lg:col-span-2">
      <h2>What your lessons teach</h2>
      <p>{l.sentence}</p>
      {l.tried.map((t) => (
        <p key={t} className="fine">
          {t}
        </p>
      ))}
      <p className="mt-2">{l.fade}</p>
      {shown.length > 0 && (
        <ul className="mt-2 grid gap-x-10 md:grid-cols-2">
          {shown.map((s) => (
            <li key={s.skill} className="border-t border-line/60 py-1.5">
              <span className={s.sure ? "font-semibold" : ""}>{s.words}</span>
              <Span of={s} />
              <span className="fine">{s.from}</span>
            </li>
          ))}
        </ul>
      )}
      {l.skills.length > shown.length && (
        <p className="mt-1">
          {shown.length === 0 && "No skill surely asks for more or less than the table says. "}
          <button type="button" className="quiet -ml-2.5" onClick={() => setAll(true)}>
            All {l.skills.length} skills with their ranges
          </button>
        </p>
      )}
      {l.canUse && !l.used && l.moves.length > 0 && (
        <div className="mt-3 max-w-prose border-l-4 border-focus pl-3">
          <p>If it were used, jumps and dates would move:</p>
          <ul className="list-disc pl-5">
            {l.moves.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </div>
      )}
      <Refused error={use.error} />
      <div className="mt-3 flex flex-wrap gap-2">
        {l.canUse && (
          <button
            type="button"
            className={`press ${l.used ? "" : "press-main"}`}
            disabled={use.isPending}
            onClick={() => use.mutate(true)}
          >
            {l.used ? "Use what was learned since" : "Use what was learned"}
          </button>
        )}
        {l.used && (
          <button type="button" className="press" disabled={use.isPending} onClick={() => use.mutate(false)}>
            Leave it off
          </button>
        )}
      </div>
    </section>
  );
}

/** The range of a weight against the table's, which is the stroke in the middle. */
function Span({ of: s }: { of: Schemas["LearnedSkill"] }) {
  const at = (f: number) => `${Math.max(0, Math.min(100, 50 + 72 * Math.log10(f)))}%`;
  return (
    <span aria-hidden="true" className="relative my-1 block h-3 max-w-72">
      <i className="absolute inset-x-0 top-1.5 h-px bg-line" />
      <i
        className="absolute top-1 h-1.5 rounded-full bg-working/35"
        style={{ left: at(s.low), right: `calc(100% - ${at(s.high)})` }}
      />
      <i className="absolute inset-y-0 left-1/2 w-px bg-ink" />
      {s.sure && (
        <i
          className="absolute top-0.5 h-2.5 w-2.5 -translate-x-1/2 rounded-full bg-working"
          style={{ left: at(s.factor) }}
        />
      )}
    </span>
  );
}
