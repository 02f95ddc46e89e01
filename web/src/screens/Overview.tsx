import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { overviewQuery } from "../data/lesson";
import { BalanceChart } from "../overview/BalanceChart";
import { StudentLine } from "../overview/StudentLine";
import { AddStudent } from "../parts/AddStudent";
import { Problem, Waiting } from "../parts/Problem";
import { SignMark, signNames } from "../parts/SignMark";
import { Title } from "../parts/Title";

type Kind = Schemas["Sign"]["kind"];

/** All students on one page, those that need something most first. */
export function Overview() {
  const overview = useQuery(overviewQuery);
  const [only, setOnly] = useState<Kind>();
  if (overview.isPending) return <Waiting />;
  if (overview.error) return <Problem error={overview.error} again={() => overview.refetch()} />;
  const { sentence, students } = overview.data;
  const count = (kind: Kind) => students.filter((o) => o.signs.some((s) => s.kind === kind)).length;
  const shown = students.filter((o) => !only || o.signs.some((s) => s.kind === only));
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of="Studio" />
      <div className="flex flex-wrap items-start justify-between gap-x-6">
        <h1 className="min-w-0 flex-1 basis-80 text-[1.6rem]">{sentence}</h1>
        {students.length > 0 && (
          <span className="flex gap-2">
            <Link to="/year" className="press">
              The year
            </Link>
            <Link to="/programme" className="press">
              Recital
            </Link>
            <Link to="/reports" className="press">
              Reports
            </Link>
          </span>
        )}
      </div>
      <fieldset className="m-0 mt-3 flex flex-wrap gap-1.5 border-0 p-0">
        <legend className="sr-only">Show only</legend>
        {(Object.keys(signNames) as Kind[])
          .filter((k) => count(k) > 0)
          .map((k) => (
            <button
              key={k}
              type="button"
              aria-pressed={only === k}
              onClick={() => setOnly(only === k ? undefined : k)}
              className="press border-line px-3 text-[0.95rem] aria-pressed:border-ink aria-pressed:bg-fold"
            >
              <SignMark kind={k} />
              {signNames[k]} <span className="figures fine">{count(k)}</span>
            </button>
          ))}
      </fieldset>
      {students.length === 0 ? (
        <p className="mt-8">
          <AddStudent look="press press-main" />
        </p>
      ) : (
        <ul className="mt-4">
          {shown.map((o) => (
            <StudentLine key={o.student.ladder} of={o} />
          ))}
        </ul>
      )}
      <BalanceChart />
    </div>
  );
}
