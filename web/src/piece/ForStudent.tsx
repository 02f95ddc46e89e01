import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { usePlace } from "../data/ladder";
import { firstName, leapSize } from "../data/words";
import { LeapParts } from "../parts/LeapParts";
import { Refused } from "../parts/Problem";
import { Why } from "../parts/Why";

/** What the piece asks of the chosen student, and the way onto the ladder. */
export function ForStudent(props: {
  piece: Schemas["Piece"];
  leap: Schemas["Leap"];
  student: Schemas["Student"];
}) {
  const { leap, piece, student } = props;
  const place = usePlace(student.ladder, piece.material.id);
  const cliff = piece.bigJump;
  return (
    <section className="mb-4 border-b border-line pb-4" aria-label={`For ${student.name}`}>
      <h2 className="flex items-baseline justify-between gap-2">
        For {firstName(student.name)}
        <span className="text-base">
          <Why
            label={leap.unknown ? "Why is the leap not known?" : `Why a leap of ${leap.words}?`}
            shown={`leap ${leap.words}`}
          >
            <LeapParts leap={leap} />
          </Why>
        </span>
      </h2>
      {leap.unknown ? (
        <p>
          Nobody has said what it needs: add its score, or name its skills, and this page says what is new.
        </p>
      ) : piece.begun ? (
        <p>
          This is what it was when {firstName(student.name)} began it: {Math.round(leap.ready * 100)} % of
          what it needs was there.
        </p>
      ) : (
        <p className={cliff ? "text-cliff" : ""}>
          {cliff ? "A big jump" : "A jump"}: {leapSize(leap.size)} (comfortable {leapSize(piece.reach ?? 0)});{" "}
          {Math.round(leap.ready * 100)} % of what it needs is there.
        </p>
      )}
      <ul className="mt-2 space-y-1">
        {leap.parts
          .filter((p) => p.amount > 0.005)
          .slice(0, 6)
          .map((p) => (
            <li key={`${p.kind}${p.skill}${p.name}`} className="flex justify-between gap-3">
              <span>
                {p.name} <span className="fine">{p.kind === "skill" ? p.where : ""}</span>
              </span>
              <span className="figures fine">{p.amount.toFixed(1)}</span>
            </li>
          ))}
      </ul>
      <div className="mt-3 flex flex-wrap gap-2">
        {piece.onLadder ? (
          <Link to={`/ladder/${student.ladder}?rung=${piece.material.id}`} className="press">
            See it on {firstName(student.name)}’s ladder
          </Link>
        ) : (
          <button
            type="button"
            className="press press-main"
            disabled={place.isPending}
            onClick={() => place.mutate()}
          >
            Put it on {firstName(student.name)}’s ladder
          </button>
        )}
      </div>
      <Refused error={place.error} />
    </section>
  );
}
