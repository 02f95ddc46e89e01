import type { Schemas } from "../contract/client";
import { leapSize } from "../data/words";

const levelWords: Record<string, string> = {
  new: "new",
  planted: "prepared",
  learning: "being learned",
  rusty: "rusty",
};

/** Why a leap is as large as it is: each part as a stroke of its size, the rest in one line. */
export function LeapParts({ leap }: { leap: Schemas["Leap"] }) {
  const parts = leap.parts.filter((p) => p.amount > 0.005);
  const there = leap.parts.filter((p) => p.amount <= 0.005);
  const most = Math.max(...parts.map((p) => p.amount), 0.5);
  return (
    <div>
      <ul className="space-y-2">
        {parts.map((p) => (
          <li key={`${p.kind}${p.skill}${p.name}`}>
            <div className="flex items-baseline justify-between gap-3">
              <span>
                <strong>{p.name}</strong>
                {p.level && <span className="fine"> · {levelWords[p.level]}</span>}
                {p.kind === "skill" && <span className="fine"> · {p.where}</span>}
              </span>
              <span className="figures fine shrink-0">
                {p.kind === "skill" ? `${p.weight} × ${p.novelty.toFixed(1)} = ` : ""}
                {p.amount.toFixed(2)}
              </span>
            </div>
            <div
              aria-hidden="true"
              className={`mt-0.5 h-1.5 rounded-full ${p.level === "planted" ? "border-2 border-preview" : p.level === "learning" ? "bg-working" : "bg-cliff"}`}
              style={{ width: `${Math.max(4, (100 * p.amount) / most)}%` }}
            />
            <p className="fine">{p.why}</p>
          </li>
        ))}
      </ul>
      {leap.unknown ? (
        <p>Nobody has said what it needs, and it has no score: how new it is cannot be said.</p>
      ) : (
        parts.length === 0 && <p>Nothing in it is new.</p>
      )}
      {there.length > 0 && (
        <p className="fine mt-3">Secure already: {there.map((p) => p.name).join(", ")}.</p>
      )}
      <p className="fine figures mt-2">
        {leap.unknown
          ? `It is drawn as a jump of about ${leapSize(leap.size)}, as its neighbours are; a guess.`
          : `Together ${leapSize(leap.size)}: weight × novelty of each skill, plus length and tempo.`}
      </p>
    </div>
  );
}
