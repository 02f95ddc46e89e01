import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { FindForLadder } from "../parts/FindForLadder";

const doors = [
  ["M8 4h18a4 4 0 0 1 4 4v24H12a4 4 0 0 0-4 4zM8 36a4 4 0 0 1 4-4h18v6H12a4 4 0 0 1-4-2z", "A book"],
  ["M14 30a5 4 0 1 0 .1 0M18 29V8l12-3v6l-12 3", "A piece"],
  ["M6 12h28M6 20h28M6 28h28M12 12v16M20 12v16M28 12v16", "An exercise"],
] as const;

/** A ladder on which nothing stands yet: three doors, and a ghost of what will be. */
export function EmptyLadder({ student }: { student: Schemas["Student"] }) {
  return (
    <div className="mx-auto grid max-w-5xl gap-8 px-4 py-8 sm:px-6 md:grid-cols-[1fr_16rem]">
      <div>
        <h2>Where to begin</h2>
        <ul className="mt-3 flex flex-wrap gap-3">
          {doors.map(([path, name]) => (
            <li key={name} className="flex items-center gap-2 text-soft">
              <svg viewBox="0 0 40 40" width="34" height="34" aria-hidden="true">
                <path d={path} fill="none" stroke="currentColor" strokeWidth="2" strokeLinejoin="round" />
              </svg>
              {name}
            </li>
          ))}
        </ul>
        <div className="mt-3">
          <FindForLadder student={student} />
        </div>
        <p className="mt-4 flex flex-wrap gap-x-4">
          <Link to={`/meeting/${student.ladder}`} className="quiet">
            The first meeting
          </Link>
          <Link to={`/meeting/${student.ladder}?show=elsewhere`} className="quiet">
            Find out what is there already
          </Link>
          <Link to={`/known/${student.ladder}`} className="quiet">
            What was known before
          </Link>
          <Link to={`/technique?ladder=${student.ladder}`} className="quiet">
            begin with an exercise
          </Link>
          <Link to="/library" className="quiet">
            Bring a book as a spreadsheet
          </Link>
        </p>
      </div>
      <svg viewBox="0 0 200 320" className="hidden w-full text-line md:block" aria-hidden="true">
        <path d="M60 10v300M140 10v300" stroke="currentColor" strokeWidth="3" strokeDasharray="6 6" />
        {[290, 262, 228, 204, 156, 130, 108, 60, 34].map((y) => (
          <path key={y} d={`M60 ${y}h80`} stroke="currentColor" strokeWidth="3" strokeDasharray="6 6" />
        ))}
      </svg>
    </div>
  );
}
