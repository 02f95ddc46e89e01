import { useState } from "react";
import { Link } from "react-router";
import { useLibraryCount } from "../data/library";
import { AddStudent } from "../parts/AddStudent";

/** What an empty studio does next: four steps, each of which can be left for later. */
export function Begin() {
  const materials = useLibraryCount();
  const [added, setAdded] = useState(false);
  const steps = [
    {
      title: "How you teach",
      says: "Pick a way of teaching; it decides how much review, when reading begins, how practice is set.",
      to: "/settings",
      link: "Choose a way",
    },
    {
      title: "Your first student",
      says: "A name, an age, an instrument. The lesson time can wait.",
      done: added,
    },
    {
      title: "A book or pieces",
      says: "Type a list of titles, bring a spreadsheet or scores, or begin with an exercise.",
      to: "/library",
      link: materials ? "Open the library" : "Add a book",
    },
    {
      title: "What the student already plays",
      says: "Up to here in a book, pieces, keys. Then the first lesson.",
    },
  ];
  return (
    <ol className="mt-8 grid max-w-3xl gap-0 border-l-4 border-line" aria-label="Begin here">
      {steps.map((s, i) => (
        <li key={s.title} className="relative border-b border-line py-4 pl-8">
          <i
            aria-hidden="true"
            className="absolute -left-[11px] top-6 h-[18px] w-[18px] rounded-full border-4 border-working bg-paper"
          />
          <h2 className="text-xl">
            {i + 1}. {s.title}
          </h2>
          <p>{s.says}</p>
          {s.to && (
            <Link to={s.to} className="press mt-2">
              {s.link}
            </Link>
          )}
          {i === 1 && (
            <div className="mt-1 max-w-52">
              <AddStudent onAdded={() => setAdded(true)} />
            </div>
          )}
        </li>
      ))}
    </ol>
  );
}
