import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { pastQuery } from "../data/lesson";
import { longDay } from "../data/words";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { DayOf } from "../past/DayOf";

const tones = {
  taught: "bg-working border-working",
  notEntered: "bg-paper border-cliff",
  cancelled: "bg-paper border-line",
  missed: "bg-paper border-line",
  planned: "bg-paper border-line",
};

/** Every lesson that was: to be read, searched and corrected. */
export function Past() {
  const { ladder = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const [search, setSearch] = useState("");
  const past = useQuery(pastQuery(ladder, search));
  const day = params.get("day") ?? past.data?.lessons[0]?.day ?? "";
  if (past.isPending) return <Waiting />;
  if (past.error) return <Problem error={past.error} again={() => past.refetch()} />;
  const p = past.data;
  const open = (d: string) => setParams({ day: d });
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of={`${p.student.name}, past lessons`} />
      <p className="fine">
        <Link to={`/student/${p.student.student}`} className="underline underline-offset-4">
          {p.student.name}
        </Link>
        , {p.student.instrument}
      </p>
      <h1 className="text-[1.6rem]">{p.sentence}</h1>
      <div className="mt-3 grid gap-8 md:grid-cols-[20rem_minmax(0,1fr)] max-md:[&>*]:min-w-0">
        <div>
          <div className="flex flex-wrap gap-2">
            <input
              type="search"
              aria-label="Search past lessons"
              placeholder="Search"
              value={search}
              onChange={(e) => setSearch(e.target.value)}
              className="min-w-28 flex-1"
            />
            <label className="relative">
              <span className="sr-only">Open a day</span>
              <input
                type="date"
                value={day}
                max={p.lessons[0]?.day}
                onChange={(e) => e.target.value && open(e.target.value)}
                className="w-36"
              />
            </label>
          </div>
          <ol
            className="mt-2 max-h-[70vh] overflow-y-auto pl-2 [&>li]:border-l-4 [&>li]:border-line"
            aria-label="Lessons"
          >
            {p.lessons.map((l) => (
              <li key={l.day} className="relative">
                <i
                  aria-hidden="true"
                  className={`absolute -left-[9px] top-4 h-3.5 w-3.5 rounded-full border-[3px] ${tones[l.state]}`}
                />
                <button
                  type="button"
                  aria-current={l.day === day}
                  onClick={() => open(l.day)}
                  className="w-full rounded py-2 pl-5 pr-2 text-left hover:bg-fold aria-[current=true]:bg-fold"
                >
                  <span className="figures block font-semibold">{longDay(l.day)}</span>
                  <span className="fine block">{l.words}</span>
                  {l.notes.slice(0, 2).map((n) => (
                    <span key={n} className="fine block truncate">
                      {n}
                    </span>
                  ))}
                </button>
              </li>
            ))}
            {p.lessons.length === 0 && <li className="fine pl-5">Nothing was found.</li>}
          </ol>
        </div>
        {day && <DayOf key={day} ladder={ladder} day={day} open={open} />}
      </div>
    </div>
  );
}
