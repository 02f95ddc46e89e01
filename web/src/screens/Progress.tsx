import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { progressQuery } from "../data/progress";
import { reportsQuery } from "../data/report";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { PieceNote } from "../progress/PieceNote";
import { Repertoire } from "../progress/Repertoire";
import { Told } from "../progress/Told";
import { WayPicture } from "../progress/WayPicture";

/** What was achieved and when: the way so far as a picture, and in words what grew and what needs care. */
export function Progress() {
  const { ladder = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const [picked, setPicked] = useState<string>();
  const span = { from: params.get("from") ?? undefined, to: params.get("to") ?? undefined };
  const progress = useQuery(progressQuery(ladder, span));
  if (progress.isPending) return <Waiting />;
  if (!progress.data) return <Problem error={progress.error} again={() => setParams({})} />;
  const p = progress.data;
  const piece = p.pieces.find((x) => x.material === picked);
  const look = (from: string, to: string) => setParams({ from, to }, { replace: true });
  return (
    <div className="mx-auto max-w-7xl px-4 py-3 sm:px-6">
      <Title of={`${p.student.name}, progress`} />
      <p className="fine">
        <Link to={`/student/${p.student.student}`} className="underline underline-offset-4">
          {p.student.name}
        </Link>{" "}
        · {p.student.instrument} ·{" "}
        <Link to={`/ladder/${ladder}`} className="underline underline-offset-4">
          ladder
        </Link>{" "}
        ·{" "}
        <Link to={`/past/${ladder}`} className="underline underline-offset-4">
          past lessons
        </Link>
      </p>
      <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-1">
        <h1 className="min-w-0 flex-1 basis-96 text-[1.6rem]">{p.sentence}</h1>
        <ReportLink ladder={ladder} />
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1">
        {p.spans.map((s) => (
          <button
            key={s.name}
            type="button"
            className="press aria-pressed:border-working aria-pressed:bg-fold"
            aria-pressed={s.chosen}
            onClick={() => look(s.from, s.to)}
          >
            {s.name}
          </button>
        ))}
        <Days key={`${p.from} ${p.to}`} from={p.from} to={p.to} look={look} />
        <Refused error={progress.error} />
      </div>
      <div className="mt-3 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="min-w-0 max-lg:order-last">
          {p.pieces.length === 0 ? (
            <p className="say mt-6">Nothing was in work in this time.</p>
          ) : (
            <>
              {piece && (
                <div className="mb-3 lg:hidden">
                  <PieceNote piece={piece} ladder={ladder} />
                </div>
              )}
              <WayPicture of={p} picked={picked} onPick={setPicked} />
            </>
          )}
        </div>
        <aside className="grid content-start gap-5 lg:sticky lg:top-3 lg:max-h-[calc(100dvh-1.5rem)] lg:overflow-y-auto">
          {piece && (
            <div className="max-lg:hidden">
              <PieceNote piece={piece} ladder={ladder} />
            </div>
          )}
          <Words of={p} />
        </aside>
      </div>
    </div>
  );
}

/** To the latest draft, or to a new report. */
function ReportLink({ ladder }: { ladder: string }) {
  const reports = useQuery(reportsQuery(ladder));
  const [fresh] = useState(ulid);
  const draft = reports.data?.find((r) => r.published === "");
  return (
    <Link to={`/report/${ladder}/${draft?.id ?? fresh}`} className="press">
      {draft ? "Go on with the report" : "Write a report"}
    </Link>
  );
}

/** Any days can be looked at. */
function Days(props: { from: string; to: string; look: (from: string, to: string) => void }) {
  const [from, setFrom] = useState(props.from);
  const [to, setTo] = useState(props.to);
  const other = from !== props.from || to !== props.to;
  return (
    <span className="flex flex-wrap items-center gap-1.5">
      <input
        type="date"
        aria-label="From"
        value={from}
        onChange={(e) => setFrom(e.target.value)}
        className="w-36"
      />
      –
      <input
        type="date"
        aria-label="To"
        value={to}
        onChange={(e) => setTo(e.target.value)}
        className="w-36"
      />
      {other && from && to && (
        <button type="button" className="press" onClick={() => props.look(from, to)}>
          Look
        </button>
      )}
    </span>
  );
}

function Words({ of: p }: { of: Schemas["Progress"] }) {
  const ladder = p.student.ladder;
  return (
    <>
      <section aria-label="What grew">
        <h2>What grew</h2>
        {p.grown.length === 0 && <p className="fine">Nothing that can be named yet.</p>}
        <ul>
          {p.grown.map((g) => (
            <li key={g.text} className="border-t border-line/60 py-1.5 leading-snug">
              <Told line={g} ladder={ladder} />
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="What needs care">
        <h2>What needs care</h2>
        <p className="leading-snug">
          <Told line={p.care} ladder={ladder} />
        </p>
      </section>
      {p.next && (
        <section aria-label="What comes next">
          <h2>What comes next</h2>
          <p className="leading-snug">{p.next}</p>
        </section>
      )}
      <section aria-label="Pace">
        <h2>Pace</h2>
        <div className="leading-snug">
          {p.pace}
          {p.ranges.length > 0 && (
            <details>
              <summary className="fine min-h-touch cursor-pointer py-2.5">Which ones</summary>
              <ul>
                {p.ranges.map((r) => (
                  <li
                    key={r.text}
                    className={`py-0.5 text-[0.88rem] leading-snug ${r.held ? "" : "text-cliff"}`}
                  >
                    {r.text}
                  </li>
                ))}
              </ul>
            </details>
          )}
        </div>
        <List of={p.stays} />
      </section>
      {p.plans.length > 0 && (
        <section aria-label="Dates">
          <h2>What was planned</h2>
          <List of={p.plans} />
        </section>
      )}
      <section aria-label="Kept alive and practised">
        <h2>Review and practice</h2>
        <List of={[p.kept, p.practice, ...p.plantings.map((x) => x.text)]} />
      </section>
      {p.ear.length > 0 && (
        <section aria-label="Ear and rhythm">
          <h2>Ear and rhythm</h2>
          <List of={p.ear} />
        </section>
      )}
      <Repertoire ladder={ladder} />
    </>
  );
}

function List({ of }: { of: string[] }) {
  return (
    <ul>
      {of.map((text) => (
        <li key={text} className="border-t border-line/60 py-1 text-[0.95rem] leading-snug">
          {text}
        </li>
      ))}
    </ul>
  );
}
