import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { SignMark } from "../parts/SignMark";

/** One student on the studio's page: what is in work against its forecast, review against its aim, signs, targets. */
export function StudentLine({ of: o }: { of: Schemas["OverviewStudent"] }) {
  const s = o.student;
  return (
    <li className="grid gap-x-6 gap-y-2 border-t border-line py-3 md:grid-cols-[8.5rem_1fr_1.2fr_8rem] lg:grid-cols-[11rem_1fr_1fr_9rem]">
      <div>
        <Link
          to={`/ladder/${s.ladder}`}
          className="font-head text-lg font-semibold underline-offset-4 hover:underline"
        >
          {s.name}
        </Link>
        <p className="fine">
          {s.instrument}, {s.age}
        </p>
      </div>
      <ul className="grid content-start gap-1.5">
        {o.working.map((w) => (
          <Pace key={w.material} working={w} />
        ))}
        {o.working.length === 0 && <li className="fine">Nothing in work.</li>}
      </ul>
      <ul className="grid content-start gap-1">
        {o.signs.slice(0, 4).map((x) => (
          <li key={x.text} className="flex gap-2 leading-snug">
            <SignMark kind={x.kind} />
            <span>{x.text}</span>
          </li>
        ))}
        {o.targets.map((t) => (
          <li key={t.id} className="flex gap-2 leading-snug">
            <span className="figures font-semibold">{Math.round(100 * t.verdict.chance)} %</span>
            <span>
              {t.name}: “{t.title}”
            </span>
          </li>
        ))}
        {o.signs.length === 0 && o.targets.length === 0 && <li className="fine">Nothing needs attention.</li>}
      </ul>
      <Review review={o.review} />
    </li>
  );
}

/** Weeks in work against the length that nine of ten such pieces stay under: past the mark is long. */
function Pace({ working: w }: { working: Schemas["OverviewStudent"]["working"][number] }) {
  const most = Math.max(w.usual, w.weeks, 1) * 1.08;
  return (
    <li>
      <p className="flex flex-wrap items-baseline justify-between gap-x-2 leading-snug">
        <span>{w.title}</span>
        <span className="figures fine">
          {w.full}/{w.points} marks{w.clears.words && ` · ${w.clears.words}`}
        </span>
      </p>
      <svg
        viewBox="0 0 200 10"
        className="mt-0.5 h-2.5 w-full"
        preserveAspectRatio="none"
        role="img"
        aria-label={`${Math.round(w.weeks)} weeks in work; ${w.usual ? `9 of 10 pieces like this take at most ${Math.ceil(w.usual)}` : "too early to say what is usual"}`}
      >
        <rect y="3" width="200" height="4" fill="var(--color-fold)" />
        <rect
          y="3"
          width={(200 * w.weeks) / most}
          height="4"
          fill={w.long ? "var(--color-cliff)" : "var(--color-working)"}
        />
        {w.usual > 0 && (
          <path
            d={`M${(200 * w.usual) / most} 0V10`}
            stroke="var(--color-ink)"
            strokeWidth="2"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
    </li>
  );
}

function Review({ review: r }: { review: Schemas["ReviewState"] }) {
  return (
    <div title={r.words}>
      <svg viewBox="0 0 140 14" className="w-full" role="img" aria-label={r.words}>
        <rect y="3" width="140" height="8" rx="4" fill="var(--color-fold)" />
        <rect y="3" width={Math.max(2, 140 * r.share)} height="8" rx="4" fill="var(--color-review)" />
        <path d={`M${140 * r.aim} 0V14`} stroke="var(--color-ink)" strokeWidth="2" />
      </svg>
      <p className="fine">
        review {Math.round(100 * r.share)} of {Math.round(100 * r.aim)} %
        {r.starved > 0 && <span className="font-semibold text-cliff"> · {r.starved} to play again</span>}
        {r.starved === 0 && r.fading > 0 && ` · ${r.fading} fading`}
      </p>
    </div>
  );
}
