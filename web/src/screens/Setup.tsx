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

type Place = "studio" | "home";

/** How a student sits: measures in, heights out with a drawing to scale, checks, the usual faults, the cautions. */
export function Setup() {
  const { ladder = "" } = useParams();
  const setup = useQuery(setupQuery(ladder));
  const [place, setPlace] = useState<Place>("studio");
  if (setup.isPending) return <Waiting />;
  if (setup.error) return <Problem error={setup.error} again={() => setup.refetch()} />;
  const s = setup.data;
  const at = s.places.find((p) => p.place === place);
  return (
    <div className="mx-auto max-w-[80rem] px-4 py-4 sm:px-6">
      <Title of={`${s.student.name}, setup`} />
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div className="min-w-0 flex-1 basis-96">
          <p className="fine">
            {s.student.name} · {s.student.instrument} · {s.student.age} years
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
      {s.asked !== "none" && (
        <>
          <fieldset className="m-0 mt-3 flex gap-2 border-0 p-0">
            <legend className="sr-only">Where</legend>
            {(["studio", "home"] as const).map((p) => (
              <button
                key={p}
                type="button"
                className="press aria-pressed:bg-ink aria-pressed:text-paper"
                aria-pressed={p === place}
                onClick={() => setPlace(p)}
              >
                {p === "studio" ? "In the studio" : "At home"}
              </button>
            ))}
          </fieldset>
          <Sitting key={`${place} ${at?.measured}`} setup={s} place={place} ladder={ladder} />
        </>
      )}
      <ul className="fine mt-3 list-disc pl-5">
        {s.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
      <Look setup={s} />
      <Faults setup={s} ladder={ladder} />
    </div>
  );
}

/** What is measured before anything is advised: blank until somebody has measured. */
function blank(setup: Schemas["Setup"], place: Place): Partial<Schemas["Measures"]> {
  const bench = place === "studio" ? setup.bench : undefined;
  return { ...bench, mats: bench?.mats ?? [], lean: setup.lean, place };
}

/** Measures that are whole, so that heights can be worked out; else nothing. */
function whole(
  m: Partial<Schemas["Measures"]>,
  asked: Schemas["Setup"]["asked"],
): Schemas["Measures"] | undefined {
  const { leg, benchLow, benchHigh, lean, mats = [] } = m;
  const [keyTop, elbow] = asked === "keys" ? [m.keyTop, m.elbow] : [0, 0];
  if (!leg || !benchLow || !benchHigh || !lean || keyTop === undefined || elbow === undefined)
    return undefined;
  if (asked === "keys" && (!keyTop || !elbow)) return undefined;
  return { ...m, place: m.place ?? "studio", keyTop, elbow, leg, benchLow, benchHigh, lean, mats };
}

function Sitting({ setup: s, place, ladder }: { setup: Schemas["Setup"]; place: Place; ladder: string }) {
  const known = s.places.find((p) => p.place === place);
  const [measures, setMeasures] = useState<Partial<Schemas["Measures"]>>(
    known ? { ...known.measures, place } : blank(s, place),
  );
  const asked = useDeferredValue(whole(measures, s.asked));
  const append = useAppend(ladder);
  return (
    <div className="mt-4 grid gap-8 lg:grid-cols-[19rem_1fr]">
      <div>
        <MeasureForm
          measures={measures}
          asked={s.asked}
          bench={place === "studio" ? s.bench : undefined}
          change={setMeasures}
        />
        <button
          type="button"
          className="press press-main mt-3 w-full"
          disabled={append.isPending || !asked}
          onClick={() => asked && append.mutate([entry("setupChecked", { setup: asked })])}
        >
          Keep these measures
        </button>
        <Refused error={append.error} />
      </div>
      <div className="min-w-0">
        {known?.growth && <p className="border-l-4 border-focus pl-3">{known.growth}</p>}
        {asked ? <Heights measures={asked} ladder={ladder} /> : <ToMeasure asked={s.asked} />}
      </div>
    </div>
  );
}

/** The heights and the drawing to scale. */
function Heights({ measures, ladder }: { measures: Schemas["Measures"]; ladder: string }) {
  const seat = useQuery(seatQuery(ladder, measures));
  if (seat.error) return <Refused error={seat.error} />;
  if (!seat.data) return null;
  return (
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
      {measures.keyTop > 0 && <SideView measures={measures} seat={seat.data} />}
    </div>
  );
}

/** Before anything was measured: what to measure, and no advice. */
function ToMeasure({ asked }: { asked: Schemas["Setup"]["asked"] }) {
  return (
    <div className="rounded-lg border-2 border-dashed border-line p-4">
      <p>Nothing is advised before it is measured. With a tape:</p>
      <ol className="list-decimal pl-6">
        {asked === "keys" && <li>From the floor to the top of the white keys.</li>}
        {asked === "keys" && <li>From the seat to the elbow, the upper arm hanging.</li>}
        <li>From the hollow of the knee to the sole, with the shoe.</li>
        <li>
          {asked === "keys" ? "The bench" : "The chair"} at its lowest and its highest; the same twice where
          it cannot be set.
        </li>
      </ol>
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
        {s.asked === "keys" && (
          <label className="flex items-center gap-2">
            <span className="fine">the hand</span>
            <select value={school} onChange={(e) => setSchool(e.target.value)}>
              <option value="hanging">as it hangs</option>
              <option value="ball">as if holding a ball</option>
            </select>
          </label>
        )}
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

/** The usual faults of beginners: one touch notes one, another that it is gone; one is looked after at a time. */
function Faults(props: { setup: Schemas["Setup"]; ladder: string }) {
  const append = useAppend(props.ladder);
  return (
    <section aria-label="Usual faults" className="mt-8 border-t border-line pt-4">
      <h2>The usual faults of beginners</h2>
      <p className="fine">
        One at a time, lightly, over months. Tap one that was seen: it opens the next lesson and goes home in
        one sentence until it is tapped gone.
      </p>
      <ul className="mt-2 grid gap-x-8 md:grid-cols-2 lg:grid-cols-3">
        {props.setup.faults.map((f) => (
          <li key={f.id} className="border-t border-line/60">
            <button
              type="button"
              aria-pressed={f.state !== "none"}
              disabled={append.isPending}
              onClick={() =>
                append.mutate([
                  entry(f.state === "none" ? "faultSeen" : "faultGone", { focus: `fault.${f.id}` }),
                ])
              }
              className="min-h-touch w-full rounded px-1 py-1.5 text-left hover:bg-fold aria-pressed:bg-fold"
            >
              <strong className="font-semibold">{f.name}</strong>
              {f.state !== "none" && (
                <span className="block text-cliff">
                  {f.state === "now" ? "Looked after now" : "Waits its turn"}, seen {f.since}. Tap when it is
                  gone.
                </span>
              )}
              <span className="fine block">“{f.remedy}”</span>
            </button>
          </li>
        ))}
      </ul>
      <Refused error={append.error} />
    </section>
  );
}
