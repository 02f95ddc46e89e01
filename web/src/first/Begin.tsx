import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { AddStudent } from "../parts/AddStudent";

type Step = Schemas["FirstStep"];

const words: Record<Step["step"], { title: string; says: string }> = {
  way: {
    title: "How you teach",
    says: "Pick a way of teaching. It decides how much review there is, when reading begins and how practice is set.",
  },
  student: { title: "Your first student", says: "A name, an age, an instrument. The lesson time can wait." },
  pieces: {
    title: "A book or pieces",
    says: "Type a title or a list, bring scores, or begin with an exercise.",
  },
  known: {
    title: "What the student already plays",
    says: "Up to here in a book, pieces, keys. Leave it out for a beginner.",
  },
  lesson: {
    title: "The first lesson",
    says: "Give it: a touch for each mark.",
  },
  week: {
    title: "The first week at home",
    says: "Publish it: the family sees it on a phone, and on paper.",
  },
};

/** What a studio that begins does next; each step can be left for later. */
export function Begin({ steps }: { steps: Step[] }) {
  const next = steps.find((s) => !s.done)?.step;
  return (
    <ol className="mt-6 max-w-3xl border-l-4 border-line" aria-label="Begin here">
      {steps.map((s, i) => (
        <li key={s.step} className="relative border-b border-line py-3 pl-8">
          <i
            aria-hidden="true"
            className={`absolute -left-[11px] top-5 h-[18px] w-[18px] rounded-full border-4 border-working ${s.done ? "bg-working" : "bg-paper"}`}
          />
          <h2 className="text-lg">
            {i + 1}. {words[s.step].title}
            {s.done && <span className="fine ml-2">done</span>}
          </h2>
          <p>{words[s.step].says}</p>
          <div className="mt-1">
            <Go step={s} main={s.step === next} />
          </div>
        </li>
      ))}
    </ol>
  );
}

function Go({ step: s, main }: { step: Step; main: boolean }) {
  const look = `press ${main ? "press-main" : ""}`;
  switch (s.step) {
    case "way":
      return (
        <Link to="/settings" className={look}>
          Choose a way
        </Link>
      );
    case "student":
      return <AddStudent look={look} />;
    case "pieces":
      return (
        <Link to={s.ladder ? `/ladder/${s.ladder}` : "/library"} className={look}>
          {s.ladder ? "To the ladder" : "Add a book"}
        </Link>
      );
  }
  if (!s.ladder) return null;
  if (s.step === "week")
    return (
      <Link to={`/close/${s.ladder}`} className={look}>
        Publish the week
      </Link>
    );
  return s.step === "known" ? (
    <Link to={`/known/${s.ladder}`} className={look}>
      Enter it
    </Link>
  ) : (
    <Link to={`/lesson/${s.ladder}`} className={look}>
      Open the lesson
    </Link>
  );
}
