import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { yearQuery } from "../data/progress";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Learned } from "../progress/Learned";

/** The studio looked back at; for the teacher's eyes. */
export function Year() {
  const year = useQuery(yearQuery);
  if (year.isPending) return <Waiting />;
  if (year.error) return <Problem error={year.error} again={() => year.refetch()} />;
  const y = year.data;
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of="The studio’s year" />
      <p className="fine">
        <Link to="/overview" className="underline underline-offset-4">
          studio
        </Link>{" "}
        · for your eyes only
      </p>
      <h1 className="text-[1.6rem]">{y.sentence}</h1>
      <div className="mt-5 grid gap-x-10 gap-y-8 lg:grid-cols-2">
        <div className="grid content-start gap-8">
          <section aria-label="Who to talk to">
            <h2>Who to talk to</h2>
            {y.talk.length === 0 && <p className="fine">Nobody stands out.</p>}
            <ul>
              {y.talk.map((t) => (
                <li key={t.ladder} className="border-t border-line/60 py-2">
                  <Link to={`/progress/${t.ladder}`} className="font-semibold hover:underline">
                    {t.name}
                  </Link>
                  {t.reasons.map((r) => (
                    <p key={r} className="leading-snug">
                      {r}
                    </p>
                  ))}
                  <p className="fine">{t.doubt}</p>
                </li>
              ))}
            </ul>
          </section>
          <section aria-label="Lessons by day">
            <h2>Lessons by day</h2>
            <Load of={y.load} />
          </section>
          <section aria-label="Pace and previews">
            <h2>Pace and previews</h2>
            <p className="leading-snug">{y.pace}</p>
            <p className="mt-2 leading-snug">{y.previews}</p>
          </section>
        </div>
        <Stalls of={y.stalls} />
        {y.once.length > 0 && (
          <section aria-label="Skills that come only once" className="lg:col-span-2">
            <h2>Skills that come only once</h2>
            <p className="fine">
              No other piece of your library asks for them, so pieces alone do not make them secure.
            </p>
            <ul className="grid gap-x-10 md:grid-cols-2">
              {y.once.map((o) => (
                <li key={o.words} className="border-t border-line/60 py-1.5">
                  <Link to={`/piece/${o.material}`} className="hover:underline">
                    {o.words}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
        <Learned />
      </div>
    </div>
  );
}

/** Each stall as a rung that reaches past the expected length. */
function Stalls({ of }: { of: Schemas["StalledPiece"][] }) {
  const most = Math.max(2, ...of.map((s) => s.ratio));
  return (
    <section aria-label="Pieces that stall">
      <h2>Pieces that stall</h2>
      {of.length === 0 && (
        <p className="fine">No piece that two students had takes much longer than expected.</p>
      )}
      <ul>
        {of.map((s) => (
          <li key={s.material} className="border-t border-line/60 py-2">
            <Link to={`/piece/${s.material}`} className="hover:underline">
              {s.words}
            </Link>
            <span aria-hidden="true" className="relative mt-1 block h-3">
              <i
                className="absolute inset-y-0.5 left-0 rounded-sm bg-working"
                style={{ width: `${100 / most}%` }}
              />
              <i
                className="absolute inset-y-1 rounded-sm bg-cliff"
                style={{ left: `${100 / most}%`, width: `${(100 * (s.ratio - 1)) / most}%` }}
              />
            </span>
            <p className="fine">
              {s.had.map((h, i) => (
                <span key={h.ladder}>
                  {i > 0 && "; "}
                  <Link to={`/progress/${h.ladder}`} className="underline decoration-line underline-offset-4">
                    {h.name}
                  </Link>{" "}
                  {h.words}
                </span>
              ))}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The minutes of each weekday as a stroke. */
function Load({ of }: { of: Schemas["DayLoad"][] }) {
  if (of.every((d) => d.minutes === 0)) return <p className="fine">No lesson times yet.</p>;
  const most = Math.max(1, ...of.map((d) => d.minutes));
  return (
    <ul>
      {of
        .filter((d) => d.minutes > 0)
        .map((d) => (
          <li key={d.weekday} className="py-1">
            <span className="text-[0.95rem]">{d.words}</span>
            <i
              aria-hidden="true"
              className="block h-2 rounded-sm bg-working"
              style={{ width: `${(100 * d.minutes) / most}%` }}
            />
          </li>
        ))}
    </ul>
  );
}
