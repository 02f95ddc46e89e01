import { useQuery } from "@tanstack/react-query";
import { ToggleGroup } from "radix-ui";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { pieceQuery, studentsQuery } from "../data/queries";
import { usePlace } from "../data/rungs";
import { firstName, leapSize } from "../data/words";
import { LeapParts } from "../parts/LeapParts";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Why } from "../parts/Why";
import type { Overlays } from "../score/Marks";
import { ScoreSheet } from "../score/ScoreSheet";

const overlayNames: { key: keyof Overlays; name: string }[] = [
  { key: "direction", name: "Direction" },
  { key: "interval", name: "Interval" },
  { key: "patterns", name: "Equal bars" },
  { key: "fresh", name: "What is new" },
];

/** A piece read closely: the score with the pencil over it, and the facts beside it. */
export function Piece() {
  const { material = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const ladder = params.get("ladder") ?? undefined;
  const piece = useQuery(pieceQuery(material, ladder));
  const students = useQuery(studentsQuery);
  const [on, setOn] = useState<string[]>(["direction", "fresh"]);
  if (piece.isPending) return <Waiting />;
  if (piece.error) return <Problem error={piece.error} again={() => piece.refetch()} />;
  const p = piece.data;
  const player = students.data?.find((s) => s.ladder === ladder);
  const overlays: Overlays = {
    direction: on.includes("direction"),
    interval: on.includes("interval"),
    patterns: on.includes("patterns"),
    fresh: on.includes("fresh"),
  };
  return (
    <div className="mx-auto max-w-[88rem] px-4 py-4 sm:px-6">
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div className="max-w-3xl">
          <p className="fine">
            {p.material.from || p.material.instrument}
            {p.material.composer && p.material.composer !== p.material.from
              ? ` · ${p.material.composer}`
              : ""}
          </p>
          <h1>{p.material.title}</h1>
          <p className="say mt-1">{p.sentence}</p>
        </div>
        <label className="flex items-center gap-2">
          <span className="fine">for</span>
          <select
            value={ladder ?? ""}
            onChange={(e) => setParams(e.target.value ? { ladder: e.target.value } : {}, { replace: true })}
          >
            <option value="">nobody in particular</option>
            {students.data
              ?.filter((s) => s.instrument === p.material.instrument)
              .map((s) => (
                <option key={s.ladder} value={s.ladder}>
                  {s.name}
                </option>
              ))}
          </select>
        </label>
      </div>
      <div className="mt-4 flex flex-col gap-6 lg:flex-row">
        <div className="min-w-0 flex-1">
          {p.hasScore ? (
            <>
              <ToggleGroup.Root
                type="multiple"
                value={on}
                onValueChange={setOn}
                aria-label="Pencil marks"
                className="flex flex-wrap gap-2"
              >
                {overlayNames
                  .filter((o) => o.key !== "fresh" || ladder)
                  .map((o) => (
                    <ToggleGroup.Item
                      key={o.key}
                      value={o.key}
                      className="press border-line data-[state=on]:border-ink data-[state=on]:bg-fold"
                    >
                      {o.name}
                    </ToggleGroup.Item>
                  ))}
              </ToggleGroup.Root>
              <div className="mt-2 rounded-lg border border-line bg-sheet px-2 pb-4 pt-6 sm:px-5">
                <ScoreSheet piece={p} overlays={overlays} />
              </div>
              {overlays.direction && <DirectionKey />}
              <Skipped list={p.skipped} />
            </>
          ) : (
            <p className="rounded-lg border border-dashed border-line p-8">
              There is no score for this piece. Bring one as MusicXML with “Add a piece” on a ladder.
            </p>
          )}
        </div>
        <aside className="lg:w-[21rem] lg:shrink-0">
          {p.leap && player && <ForStudent piece={p} leap={p.leap} student={player} />}
          <Facts piece={p} />
        </aside>
      </div>
    </div>
  );
}

function DirectionKey() {
  return (
    <p className="fine mt-2 flex flex-wrap items-center gap-x-5">
      {(["up", "down", "same"] as const).map((d) => (
        <span key={d} className="inline-flex items-center gap-2">
          <svg width="30" height="14" aria-hidden="true">
            <path
              d={d === "up" ? "M3 11L27 3" : d === "down" ? "M3 3L27 11" : "M3 7H27"}
              stroke={`var(--color-${d})`}
              strokeWidth="4"
              strokeLinecap="round"
              strokeDasharray={d === "down" ? "9 6" : d === "same" ? "0.1 8" : undefined}
            />
          </svg>
          {d === "same" ? "stays" : d === "up" ? "rises" : "falls"}
        </span>
      ))}
      <span>For chords the outer note of the hand is followed.</span>
    </p>
  );
}

function ForStudent(props: { piece: Schemas["Piece"]; leap: Schemas["Leap"]; student: Schemas["Student"] }) {
  const { leap, piece, student } = props;
  const place = usePlace(student.ladder, piece.material.id);
  const cliff = leap.size > (piece.reach ?? 0);
  return (
    <section className="mb-6 border-b border-line pb-5" aria-label={`For ${student.name}`}>
      <h2 className="flex items-baseline justify-between gap-2">
        For {firstName(student.name)}
        <span className="text-base">
          <Why label={`Why a leap of ${leapSize(leap.size)}?`} shown={`leap ${leapSize(leap.size)}`}>
            <LeapParts leap={leap} />
          </Why>
        </span>
      </h2>
      <p className={cliff ? "text-cliff" : ""}>
        {cliff ? "A cliff: over" : "Within"} the comfortable {leapSize(piece.reach ?? 0)};{" "}
        {Math.round(leap.ready * 100)} % of what it asks for is there.
      </p>
      <ul className="mt-2 space-y-1">
        {leap.parts
          .filter((p) => p.amount > 0.005)
          .slice(0, 6)
          .map((p) => (
            <li key={`${p.kind}${p.skill}`} className="flex justify-between gap-3">
              <span>
                {p.name} <span className="fine">{p.kind === "skill" ? p.where : ""}</span>
              </span>
              <span className="figures fine">{p.amount.toFixed(1)}</span>
            </li>
          ))}
      </ul>
      <div className="mt-3 flex flex-wrap gap-2">
        {piece.onLadder ? (
          <Link to={`/ladder/${student.ladder}`} className="press">
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

function Facts({ piece }: { piece: Schemas["Piece"] }) {
  const share = piece.bars ? Math.round((100 * piece.distinctBars) / piece.bars) : 0;
  return (
    <section aria-label="Facts">
      {piece.lines.map((l) => (
        <div key={l.staff} className="mb-4">
          <h3>
            {l.hand === "part" ? l.part || "The part" : `${l.hand === "right" ? "Right" : "Left"} hand`}
          </h3>
          {l.start && (
            <p>
              Starts with {l.start.words}
              {l.start.weakFinger ? ", a weak finger" : ""}
              {l.start.finger > 0 && !l.start.fingerGiven ? " (finger proposed)" : ""}.
            </p>
          )}
          <p className="fine">
            {l.notes.length} notes: {l.notes.map((n) => n.pitch).join(" ")}
          </p>
          <MoveBars counts={l.counts} />
        </div>
      ))}
      {piece.bars > 0 && (
        <p>
          {piece.distinctBars} of {piece.bars} bars to learn ({share} %)
          {piece.key ? `; ${piece.key}` : ""}
          {piece.time ? `; ${piece.time}` : ""}
          {piece.tempo ? `; crotchet ${Math.round(piece.tempo)}` : ""}; {piece.texture}.
        </p>
      )}
      <details className="mt-3" open={piece.lines.length === 0}>
        <summary className="min-h-touch content-center font-semibold">
          Asks for {piece.demands.length} skills
        </summary>
        <ul>
          {piece.demands.map((d) => (
            <li key={d.skill} className="flex justify-between gap-3">
              <span>{d.name}</span>
              <span className="fine">{d.where}</span>
            </li>
          ))}
        </ul>
      </details>
      <details>
        <summary className="min-h-touch content-center font-semibold">Focus points</summary>
        <ul className="list-disc pl-5">
          {piece.focusPoints.map((f) => (
            <li key={f}>{f}</li>
          ))}
        </ul>
      </details>
    </section>
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

const some = (n: number, what: string) => `${n || "no"} ${what}${n === 1 ? "" : "s"}`;

function Skipped({ list }: { list: Schemas["Skip"][] }) {
  if (list.length === 0) return null;
  return (
    <details className="fine mt-2">
      <summary className="min-h-touch content-center">
        Not taken over from the file: {list.length} {list.length === 1 ? "kind of thing" : "kinds of things"}
      </summary>
      <ul className="list-disc pl-5">
        {list.map((s) => (
          <li key={s.what}>
            {s.what}, {s.count === 1 ? "once" : `${s.count} times`}, first at {s.where}
          </li>
        ))}
      </ul>
    </details>
  );
}
