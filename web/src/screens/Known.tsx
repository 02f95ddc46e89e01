import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { knownQuery, useEffectOf, useEnterKnown, useUndoBatch } from "../data/known";
import { Books, type UpTo } from "../known/Books";
import { type Line, Pasted } from "../known/Pasted";
import { Ticks } from "../known/Ticks";
import { When } from "../known/When";
import type { Rough } from "../known/when";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Unsaved } from "../parts/Unsaved";

/** What a student could do before the studio's own log begins: one sheet, one press, one undo. */
export function Known() {
  const { ladder = "" } = useParams();
  const sheet = useQuery(knownQuery(ladder));
  const [batch, setBatch] = useState(ulid);
  const [when, setWhen] = useState<Rough>("this-term");
  const [upTo, setUpTo] = useState<UpTo[]>([]);
  const [lines, setLines] = useState<Line[]>([]);
  const [keys, setKeys] = useState<string[]>([]);
  const [skills, setSkills] = useState<string[]>([]);
  const known: Schemas["NewKnown"] = {
    batch,
    upTo,
    pieces: lines.flatMap((l) => (l.material && l.sure ? [{ material: l.material, when: l.when }] : [])),
    titles: lines.flatMap((l) => (l.material ? [] : [{ id: l.id, title: l.line, when: l.when }])),
    keys: keys.map((exercise) => ({ exercise, when })),
    skills: skills.map((skill) => ({ skill, when })),
  };
  const doubtful = lines.filter((l) => l.material && !l.sure).length;
  const some = upTo.length + lines.length + keys.length + skills.length > 0;
  const effect = useEffectOf(ladder, known, some);
  const enter = useEnterKnown(ladder, () => {
    setBatch(ulid());
    setUpTo([]);
    setLines([]);
    setKeys([]);
    setSkills([]);
  });
  const undo = useUndoBatch(ladder);
  if (sheet.isPending) return <Waiting />;
  if (sheet.error) return <Problem error={sheet.error} again={() => sheet.refetch()} />;
  const s = sheet.data;
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of={`${s.student.name}, known before`} />
      <Unsaved dirty={some && !enter.isPending} />
      <p className="fine">
        <Link to={`/ladder/${ladder}`} className="underline underline-offset-4">
          {s.student.name}
        </Link>
        , {s.student.instrument}
      </p>
      <h1 className="text-[1.6rem]">What was known before the first lesson here</h1>
      <p className="fine">
        Not sure what is there?{" "}
        <Link to={`/meeting/${ladder}?show=elsewhere`} className="underline underline-offset-4">
          Ask a few questions
        </Link>
        .
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-2">
        <span className="fine">Unless you say otherwise, known</span>
        <When value={when} onChange={setWhen} label="About when" />
      </p>
      <div className="mt-4 grid gap-8 lg:grid-cols-[1fr_19rem]">
        <div className="grid min-w-0 content-start gap-6">
          <Books books={s.books} upTo={upTo} onChange={setUpTo} when={when} />
          <Pasted ladder={ladder} lines={lines} onChange={setLines} when={when} />
          {s.keys.length > 0 && (
            <section aria-label="Keys">
              <h2 className="text-lg">Keys of scales</h2>
              <Ticks label="Keys" list={s.keys} picked={keys} onChange={setKeys} />
            </section>
          )}
          <section aria-label="Skills">
            <h2 className="text-lg">Skills</h2>
            {s.skills.map((f) => (
              <details key={f.name} className="border-t border-line/60">
                <summary className="min-h-touch content-center">
                  {f.name} <span className="fine">{f.skills.length}</span>
                </summary>
                <Ticks label={f.name} list={f.skills} picked={skills} onChange={setSkills} />
              </details>
            ))}
          </section>
        </div>
        <aside className="h-fit rounded-lg border border-line bg-sheet p-5 lg:sticky lg:top-4">
          <h2 className="text-lg">What this changes</h2>
          {some ? (
            <ul className="mt-1 space-y-1" aria-busy={effect.isFetching}>
              {effect.data?.words.map((w) => (
                <li key={w}>{w}</li>
              ))}
            </ul>
          ) : (
            <p className="fine">
              Nothing is chosen yet. What you tick here counts with a doubt that grows with time.
            </p>
          )}
          {doubtful > 0 && (
            <p className="mt-2 text-preview">
              {doubtful === 1 ? "1 line is" : `${doubtful} lines are`} doubtful: say yes or no first.
            </p>
          )}
          <button
            type="button"
            className="press press-main mt-3 w-full"
            disabled={!some || doubtful > 0 || enter.isPending}
            onClick={() => enter.mutate(known)}
          >
            Enter it
          </button>
          <Refused error={effect.error ?? enter.error ?? undo.error} />
          {s.entered.length > 0 && (
            <ul className="mt-4 border-t border-line pt-2">
              {s.entered.map((b) => (
                <li key={b.id}>
                  <p className="fine">{b.words}</p>
                  <button
                    type="button"
                    className="quiet"
                    disabled={undo.isPending}
                    onClick={() => undo.mutate(b.id)}
                  >
                    Undo all of it
                  </button>
                </li>
              ))}
            </ul>
          )}
          <Link to={`/lesson/${ladder}`} className="quiet mt-2">
            To the lesson
          </Link>
        </aside>
      </div>
    </div>
  );
}
