import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { firstName } from "../data/words";
import { Why } from "../parts/Why";
import { Profile } from "./Profile";

type Piece = Schemas["Piece"];

/** What the piece is made of. */
export function Facts({ piece }: { piece: Piece }) {
  const share = piece.bars ? Math.round((100 * piece.distinctBars) / piece.bars) : 0;
  return (
    <section aria-label="Facts" className="border-b border-line pb-4">
      {piece.bars > 0 && (
        <>
          <Load piece={piece} />
          <p>
            <strong className="figures">{piece.distinctBars}</strong> patterns in {piece.bars} bars to learn (
            {share} %)
          </p>
          {piece.key && (
            <p>
              In
              <Why label="Why this key?" shown={piece.key}>
                {piece.keyWhy}
              </Why>
            </p>
          )}
          <p className="fine">
            {[piece.time, piece.tempo ? `crotchet ${Math.round(piece.tempo)}` : "", piece.texture]
              .filter(Boolean)
              .join("; ")}
          </p>
          {piece.playing && (
            <p>
              Takes
              <Why label="Why so long?" shown={piece.playing}>
                {piece.playingWhy}
              </Why>
            </p>
          )}
        </>
      )}
      <Profile piece={piece} />
      {piece.lines.map((l) => (
        <LineFacts key={l.staff} l={l} />
      ))}
    </section>
  );
}

/** The bars of the piece as a row of strokes: the ones to learn stand full, those in another form half, the repeated ones are hollow. */
function Load({ piece }: { piece: Piece }) {
  const first = new Map(piece.patterns.map((p) => [p.bars[0], p.like !== undefined]));
  const many = piece.bars > 48; // then the strokes stand close, without an outline
  return (
    <div className={`mb-1 flex h-4 overflow-hidden ${many ? "" : "gap-px"}`} aria-hidden="true">
      {piece.barTimes.map((t, i) => (
        <i
          key={t.start}
          className={`min-w-0 flex-1 ${many ? "" : "rounded-sm border border-working"}`}
          style={{
            background: fill(first.get(i + 1), many),
          }}
        />
      ))}
    </div>
  );
}

function fill(another: boolean | undefined, many: boolean): string {
  if (another === false) return "var(--color-working)";
  const rest = many ? "var(--color-fold)" : "transparent";
  return another ? `linear-gradient(to top, var(--color-working) 45%, ${rest} 45%)` : rest;
}

function LineFacts({ l }: { l: Schemas["Line"] }) {
  return (
    <div className="mt-3">
      <h3>{l.hand === "part" ? l.part || "The part" : `${l.hand === "right" ? "Right" : "Left"} hand`}</h3>
      {l.start && (
        <p>
          Starts with {l.start.words}
          {l.start.weakFinger ? ", a weak finger" : ""}
          {l.start.finger > 0 && !l.start.fingerGiven ? (l.sure ? " (proposed)" : " (a suggestion)") : ""}.
        </p>
      )}
      <MoveBars counts={l.counts} />
      <p className="fine">
        {l.notes.length} notes: {l.notes.map((n) => n.pitch).join(" ")}
        {l.distinctBars > 0 && `; ${l.distinctBars} different bars by itself`}
      </p>
      {l.positions.length > 0 && (
        <p className="fine">
          {l.sure
            ? `${l.positions[0]?.name}: one position, so the fingers follow from it`
            : `${some(l.shifts.length, "shift")}, ${some(l.stretches.length, "stretch", "es")}; fingers that are not printed are a suggestion`}
          {l.shifts.length > 0 &&
            `: ${l.shifts
              .slice(0, 3)
              .map((s) => `${s.where} to ${s.to} (${s.how})`)
              .join(", ")}`}
          {l.shifts.length > 3 ? ` and ${l.shifts.length - 3} more.` : "."}
        </p>
      )}
    </div>
  );
}

/** How a line moves: rises, falls and stays in one stroke, steps, skips and leaps in words. */
function MoveBars({ counts }: { counts: Schemas["Line"]["counts"] }) {
  const all = counts.up + counts.down + counts.same;
  if (all === 0) return null;
  return (
    <>
      <div className="mt-1 flex h-2 gap-0.5 overflow-hidden rounded-full" aria-hidden="true">
        {(["up", "same", "down"] as const).map((d) => (
          <i key={d} style={{ width: `${(100 * counts[d]) / all}%`, background: `var(--color-${d})` }} />
        ))}
      </div>
      <p className="fine figures mt-1">
        rises {counts.up}, stays {counts.same}, falls {counts.down}; {some(counts.step, "step")},{" "}
        {some(counts.skip, "skip")}, {some(counts.leap, "leap")}
      </p>
    </>
  );
}

const some = (n: number, what: string, more = "s") => `${n || "no"} ${what}${n === 1 ? "" : more}`;

const readyMarks: Record<Schemas["Ready"]["state"], { mark: string; colour: string; name: string }> = {
  ready: { mark: "●", colour: "var(--color-good)", name: "ready" },
  reach: { mark: "◐", colour: "var(--color-preview)", name: "a reach" },
  unknown: { mark: "?", colour: "var(--color-soft)", name: "not known" },
  blocked: { mark: "○", colour: "var(--color-cliff)", name: "not yet" },
  begun: { mark: "✓", colour: "var(--color-review)", name: "begun" },
};

/** Who in the studio could have this piece now, the readiest first. */
export function ReadyFor({ piece, ladder }: { piece: Piece; ladder?: string }) {
  if (piece.readyFor.length === 0) return null;
  return (
    <section aria-label="Who is ready" className="border-b border-line py-3">
      <h3>Who is ready</h3>
      <ul>
        {piece.readyFor.map((r) => (
          <li key={r.ladder}>
            <Link
              to={`?ladder=${r.ladder}`}
              replace
              aria-current={r.ladder === ladder || undefined}
              className="flex min-h-touch items-center gap-2 rounded px-1 hover:bg-fold aria-[current]:bg-fold"
            >
              <span aria-hidden="true" style={{ color: readyMarks[r.state].colour }}>
                {readyMarks[r.state].mark}
              </span>
              <span>
                {firstName(r.name)}
                <span className="sr-only">: {readyMarks[r.state].name}</span>
              </span>
              <span className="fine ml-auto text-right">{r.words}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
