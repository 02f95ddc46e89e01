import { useQuery } from "@tanstack/react-query";
import { techniqueQuery } from "../data/queries";
import { useLessonAppend } from "../lesson/useLessonAppend";
import { Problem, Refused, Waiting } from "../parts/Problem";
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
  const technique = useQuery(techniqueQuery(ladder));
  const { append } = useLessonAppend(ladder);
  if (technique.isPending) return <Waiting />;
  if (technique.error) return <Problem error={technique.error} again={() => technique.refetch()} />;
  const t = technique.data;
  const shown = props.exercise ?? t.now[0]?.exercise ?? t.proposed[0]?.exercise;
  const now = t.now.find((n) => n.exercise === shown);
  return (
    <>
      <h1 className="mt-3 text-[1.6rem]">{t.sentence}</h1>
      <Refused error={append.error} />
      <div className="mt-3 grid gap-x-10 gap-y-6 lg:grid-cols-[23rem_minmax(0,1fr)]">
        <div className="flex flex-col gap-6">
          {t.now.length > 0 && (
            <section aria-label="Today">
              {t.now.map((n) => (
                <NowCard key={n.material} now={n} shown={n.exercise === shown} open={open} append={append} />
              ))}
            </section>
          )}
          <NextExercises ladder={ladder} proposed={t.proposed} shown={shown} open={open} append={append} />
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
