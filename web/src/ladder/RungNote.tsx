import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { entry, useAppend } from "../data/entries";
import { firstName, shortDate, weeks } from "../data/words";
import { LayerMark } from "../parts/LayerMark";
import { LeapParts } from "../parts/LeapParts";
import { Refused } from "../parts/Problem";
import { Why } from "../parts/Why";
import { Liking } from "./Liking";
import type { Order } from "./order";
import { RungMoves } from "./RungMoves";

/** The note beside the ladder about the rung that was touched. */
export function RungNote(props: {
  rung: Schemas["Rung"];
  student: Schemas["Student"];
  order: Order;
  busy: boolean;
  attempt: (order: Order) => void;
}) {
  const { rung, student } = props;
  const append = useAppend(student.ladder);
  const begun = rung.layer === "working" || rung.layer === "review";
  return (
    <section aria-label={rung.title}>
      <p className="fine flex items-center gap-2">
        <LayerMark layer={rung.layer} size={14} />
        {rung.from}
      </p>
      <h2 className="mt-1">{rung.title}</h2>
      <p className="mt-2">{state(rung)}</p>
      {rung.why && <p className="mt-1">{rung.why}</p>}
      <p className="mt-2 flex items-center">
        {begun ? "Leap when it was begun:" : "Leap, with everything below cleared:"}
        <Why label={`Why ${rung.leap.words}?`} shown={rung.leap.words}>
          <LeapParts leap={rung.leap} />
        </Why>
        {rung.cliff && <span className="text-cliff">a big jump</span>}
      </p>
      {rung.howLong && (
        <p className="flex items-center">
          How long?
          <Why label="How is that known?" shown={rung.howLong.words}>
            <HowLong range={rung.howLong} />
          </Why>
        </p>
      )}
      {rung.clears?.words && (
        <p>
          {begun ? "Cleared" : `Begins ${rung.begins?.words}, cleared`} {rung.clears.words}, likely (4 in 5).
        </p>
      )}
      {rung.long && (
        <p className="text-cliff">Longer than usual: 9 of 10 pieces like this are done by now.</p>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        {rung.exercise ? (
          <Link
            to={`/technique?${new URLSearchParams({ ladder: student.ladder, exercise: rung.exercise })}`}
            className="press"
          >
            On the instrument
          </Link>
        ) : (
          <Link to={`/piece/${rung.material}?ladder=${student.ladder}`} className="press">
            Read the piece
          </Link>
        )}
        {!begun && (
          <button
            type="button"
            className="press"
            disabled={append.isPending}
            onClick={() => append.mutate([entry("assigned", { material: rung.material })])}
          >
            Begin it with {firstName(student.name)}
          </button>
        )}
      </div>
      <RungMoves {...props} ladder={student.ladder} />
      <Liking rung={rung} student={student} />
      <Refused error={append.error} />
    </section>
  );
}

/** A forecast as a soft-edged stroke over the weeks, never as a point, with its reason. */
function HowLong({ range }: { range: Schemas["HowLong"] }) {
  const most = Math.max(8, Math.ceil(range.high) + 1);
  const x = (weeks: number) => 8 + (weeks / most) * 304;
  return (
    <>
      <svg viewBox="0 0 320 46" className="w-full" role="img" aria-label={range.words}>
        <defs>
          <linearGradient id="soft">
            <stop offset="0" stopColor="var(--color-working)" stopOpacity="0.15" />
            <stop offset="0.5" stopColor="var(--color-working)" stopOpacity="0.85" />
            <stop offset="1" stopColor="var(--color-working)" stopOpacity="0.15" />
          </linearGradient>
        </defs>
        <rect
          x={x(range.low)}
          y="8"
          width={x(range.high) - x(range.low)}
          height="12"
          rx="6"
          fill="url(#soft)"
        />
        <path d={`M${x(0)} 26H${x(most)}`} stroke="var(--color-line)" />
        {Array.from({ length: most + 1 }, (_, i) => i)
          .filter((i) => most <= 12 || i % 4 === 0)
          .map((i) => (
            <text key={i} x={x(i)} y="41" textAnchor="middle" fontSize="12" fill="var(--color-soft)">
              {i}
            </text>
          ))}
      </svg>
      <p>{range.why}</p>
    </>
  );
}

function state(rung: Schemas["Rung"]): string {
  if (rung.layer === "working" && rung.assigned)
    return `Started ${shortDate(rung.assigned)}${rung.spots ? `, with ${rung.spots} hard ${rung.spots === 1 ? "spot" : "spots"}` : ""}.`;
  if (rung.layer === "review" && rung.cleared)
    return `Cleared ${shortDate(rung.cleared)}${rung.weeks ? ` after ${weeks(rung.weeks)}` : ""}${rung.lastPlayed ? `, last played ${shortDate(rung.lastPlayed)}` : ""}; ${Math.round(100 * (rung.recall ?? 0))} % sure to go today (an estimate).`;
  if (rung.layer === "preview") return "Ahead; something it needs is being prepared already.";
  return "Ahead.";
}
