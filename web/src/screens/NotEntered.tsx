import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { notEnteredQuery } from "../data/lesson";
import { usePastDay } from "../data/usePastDay";
import { longDay } from "../data/words";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { EnterLesson } from "../past/EnterLesson";

const keyOf = (l: Schemas["LessonDate"]) => `${l.ladder} ${l.day}`;

/** The lessons that took place and were never entered, one after the other on one sheet. */
export function NotEntered() {
  const list = useQuery(notEnteredQuery);
  const [params, setParams] = useSearchParams();
  if (list.isPending) return <Waiting />;
  if (list.error) return <Problem error={list.error} again={() => list.refetch()} />;
  const { lessons, sentence } = list.data;
  const open = lessons.find((l) => keyOf(l) === params.get("open")) ?? lessons[0];
  return (
    <div className="mx-auto max-w-4xl px-4 py-6 sm:px-8">
      <Title of="Lessons not entered" />
      <h1>{sentence}</h1>
      {lessons.length === 0 && (
        <p className="mt-2">
          <Link to="/" className="underline underline-offset-4">
            Back to today
          </Link>
        </p>
      )}
      <ol className="mt-4">
        {lessons.map((l) => {
          const here = open && keyOf(l) === keyOf(open);
          return (
            <li key={`${keyOf(l)} ${l.startsAt}`} className="border-t border-line py-2">
              <button
                type="button"
                aria-expanded={here}
                onClick={() => setParams({ open: keyOf(l) })}
                className="flex w-full flex-wrap items-baseline gap-x-4 rounded py-2 text-left hover:bg-fold"
              >
                <strong className="text-lg">{l.name}</strong>
                <span className="figures">
                  {longDay(l.day)}, {l.startsAt}
                </span>
                <span className="fine">{l.instrument}</span>
              </button>
              {here && <One key={keyOf(l)} ladder={l.ladder} day={l.day} done={() => setParams({})} />}
            </li>
          );
        })}
      </ol>
    </div>
  );
}

function One(props: { ladder: string; day: string; done: () => void }) {
  const past = usePastDay(props.ladder, props.day);
  if (past.isPending) return <Waiting />;
  if (past.error) return <Problem error={past.error} again={() => past.refetch()} />;
  return <EnterLesson of={past.data} done={props.done} />;
}
