import { useState } from "react";
import { entry } from "../data/entries";
import type { Entry } from "../data/outbox";
import { useTechnique } from "../data/technique";
import { type Append, useLessonAppend } from "../data/useLessonAppend";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { AheadExercises } from "./AheadExercises";
import { Atlas } from "./Atlas";
import { CycleStrip } from "./CycleStrip";
import { ExerciseView } from "./ExerciseView";
import { NextExercises } from "./NextExercises";
import { NowCard } from "./NowCard";
import { Stairs } from "./Stairs";
import { TempoLadder } from "./TempoLadder";

/** Where one student stands: what is worked at, what comes next, the keys, and the cycle over the term. */
export function StudentTechnique(props: {
  ladder: string;
  exercise: string | undefined;
  open: (exercise: string) => void;
}) {
  const { ladder, open } = props;
  const technique = useTechnique(ladder);
  const { append: write } = useLessonAppend(ladder);
  // What was noted last can be taken back, as in a lesson.
  const [last, setLast] = useState<Entry[]>([]);
  const append: Append = {
    ...write,
    mutate: (entries, then) => {
      write.mutate(entries, then);
      setLast(entries);
    },
  };
  const takeBack = () => {
    write.mutate(last.map((e) => entry("correction", { corrects: e.id })));
    setLast([]);
  };
  if (technique.isPending) return <Waiting />;
  if (technique.error) return <Problem error={technique.error} again={() => technique.refetch()} />;
  const t = technique.data;
  const shown = props.exercise ?? t.now[0]?.exercise ?? t.proposed[0]?.exercise;
  const now = t.now.find((n) => n.exercise === shown);
  return (
    <>
      <h1 className="mt-3 text-[1.6rem]">{t.sentence}</h1>
      <Refused error={append.error} />
      {last.length > 0 && (
        <p className="fine flex items-center">
          Noted.
          <button type="button" className="quiet" onClick={takeBack}>
            Take it back
          </button>
        </p>
      )}
      <div className="mt-3 grid gap-x-10 gap-y-6 lg:grid-cols-[23rem_minmax(0,1fr)]">
        <div className="flex flex-col gap-6">
          {t.now.length > 0 && (
            <section aria-label="Today">
              {t.now.map((n) => (
                <NowCard
                  key={n.material}
                  now={n}
                  dose={t.dose}
                  shown={n.exercise === shown}
                  open={open}
                  append={append}
                />
              ))}
            </section>
          )}
          <AheadExercises technique={t} open={open} append={append} />
          <NextExercises
            ladder={ladder}
            proposed={t.proposed}
            shown={shown}
            open={open}
            begun={open}
            append={append}
          />
        </div>
        <div className="min-w-0">
          <ExerciseView
            instrument={t.instrument}
            exercise={shown}
            open={open}
            taken={t.now.some((n) => n.exercise === shown)}
            ladder={ladder}
            append={append}
          />
          {now && <TempoLadder key={now.material} now={now} append={append} />}
        </div>
      </div>
      <CycleStrip technique={t} append={append} open={open} />
      <Stairs technique={t} open={open} shown={shown} />
      <div className="mt-8 border-t border-line pt-4">
        <Atlas instrument={t.instrument} only={ladder} open={(_, id) => open(id)} />
      </div>
    </>
  );
}
