import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../contract/client";
import { entry, useAppend } from "../data/entries";
import { seatQuery, setupQuery } from "../data/lesson";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { MeasureForm } from "../setup/MeasureForm";
import { SideView } from "../setup/SideView";

/** How a student sits: measures in, heights out with a drawing to scale, checks, the usual faults, the cautions. */
export function Setup() {
  const { ladder = "" } = useParams();
  const setup = useQuery(setupQuery(ladder));
  if (setup.isPending) return <Waiting />;
  if (setup.error) return <Problem error={setup.error} again={() => setup.refetch()} />;
  return <Sitting key={setup.data.measured} setup={setup.data} ladder={ladder} />;
}

const usual: Schemas["Measures"] = {
  keyTop: 73,
  elbow: 18,
  leg: 34,
  benchLow: 46,
  benchHigh: 55,
  lean: "level",
  mats: [],
};

function Sitting({ setup: s, ladder }: { setup: Schemas["Setup"]; ladder: string }) {
  const [measures, setMeasures] = useState(s.measures ?? { ...usual, lean: s.lean });
  const asked = useDeferredValue(measures);
  const seat = useQuery(seatQuery(ladder, asked));
  const append = useAppend(ladder);
  return (
    <div className="mx-auto max-w-[80rem] px-4 py-4 sm:px-6">
      <Title of={`${s.student.name}, setup`} />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div className="min-w-0 flex-1 basis-96">
          <p className="fine">
            {s.student.name} · {s.student.age} years
          </p>
          <h1 className="text-[1.6rem]">{s.sentence}</h1>
        </div>
        <div className="flex gap-2">
          <Link className="press" to={`/ladder/${ladder}`}>
            Ladder
          </Link>
          <Link className="press" to={`/lesson/${ladder}`}>
            Lesson
          </Link>
        </div>
      </div>
      <div className="mt-4 grid gap-8 lg:grid-cols-[19rem_1fr]">
        <div>
          <MeasureForm measures={measures} change={setMeasures} />
          <button
            type="button"
            className="press press-main mt-3 w-full"
            disabled={append.isPending || !seat.data || Boolean(seat.error)}
            onClick={() => append.mutate([entry("setupChecked", { setup: measures })])}
          >
            Keep these measures
          </button>
          <Refused error={append.error} />
        </div>
        <div className="min-w-0">
          <Refused error={seat.error} />
          {seat.data && !seat.error && (
            <div aria-live="polite">
              {seat.data.says.map((line) => (
                <p key={line} className={seat.data.possible ? "" : "text-cliff"}>
                  {line}
                </p>
              ))}
              {seat.data.refused.map((line) => (
                <p key={line} className="text-cliff">
                  {line}
                </p>
              ))}
              <SideView measures={asked} seat={seat.data} />
            </div>
          )}
          <ul className="fine list-disc pl-5">
            {s.cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </div>
      </div>
      <Look setup={s} />
      <Faults setup={s} append={append} />
    </div>
  );
}

/** What to look at, by the school of the hand. */
function Look({ setup: s }: { setup: Schemas["Setup"] }) {
  const [school, setSchool] = useState<string>(s.school);
  const list = s.checks.find((c) => c.school === school)?.list ?? [];
  return (
    <section aria-label="What to look at" className="mt-8 border-t border-line pt-4">
      <div className="flex flex-wrap items-center gap-x-4">
        <h2>What to look at</h2>
        <label className="flex items-center gap-2">
          <span className="fine">the hand</span>
          <select value={school} onChange={(e) => setSchool(e.target.value)}>
            <option value="hanging">as it hangs</option>
            <option value="ball">as if holding a ball</option>
          </select>
        </label>
      </div>
      <ul className="mt-2 grid gap-x-8 gap-y-2 md:grid-cols-2 lg:grid-cols-3">
        {list.map((c) => (
          <li key={c.id} className="border-t border-line/60 pt-1.5">
            {c.look}
            <span className="fine block">“{c.child}”</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The usual faults of beginners: one touch notes one, with what to say to a child. */
function Faults(props: { setup: Schemas["Setup"]; append: ReturnType<typeof useAppend> }) {
  const [noted, setNoted] = useState<string>();
  return (
    <section aria-label="Usual faults" className="mt-8 border-t border-line pt-4">
      <h2>The usual faults of beginners</h2>
      <p className="fine">One at a time, lightly, over months. Tap one to note that it was seen today.</p>
      <ul className="mt-2 grid gap-x-8 md:grid-cols-2 lg:grid-cols-3">
        {props.setup.faults.map((f) => (
          <li key={f.id} className="border-t border-line/60">
            <button
              type="button"
              aria-pressed={noted === f.id}
              disabled={props.append.isPending}
              onClick={() => {
                props.append.mutate([entry("note", { text: f.name })]);
                setNoted(f.id);
              }}
              className="min-h-touch w-full rounded px-1 py-1.5 text-left hover:bg-fold aria-pressed:bg-fold"
            >
              <strong className="font-semibold">{f.name}</strong>
              <span className="fine block">“{f.remedy}”</span>
            </button>
          </li>
        ))}
      </ul>
      <p role="status">{noted && "Noted. It stands among today’s entries in the lesson."}</p>
    </section>
  );
}
