import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useOverrule, useSkills } from "../data/library";
import { useFamily } from "../data/people";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

type Piece = Schemas["Piece"];
type Demand = Schemas["Demand"];

const weights: { weight: number; words: string }[] = [
  { weight: 0, words: "not at all" },
  { weight: 0.3, words: "a little" },
  { weight: 0.6, words: "some" },
  { weight: 1, words: "fully" },
  { weight: 1.5, words: "very much" },
];

const nearest = (w: number) =>
  weights.reduce((a, b) => (Math.abs(b.weight - w) < Math.abs(a.weight - w) ? b : a)).words;

/** The skills that the piece asks for. Each can be corrected, and one can be added. */
export function Demands({ piece }: { piece: Piece }) {
  const [changing, change] = useState<Demand>();
  const [adding, add] = useState(false);
  const [all, unfold] = useState(false);
  const overrule = useOverrule(piece.material.id);
  return (
    <section aria-label="What it needs" className="border-b border-line py-3">
      <details open={piece.lines.length === 0}>
        <summary className="min-h-touch content-center font-semibold">
          Needs {piece.demands.length} {piece.demands.length === 1 ? "skill" : "skills"}
        </summary>
        <ul>
          {(all ? piece.demands : piece.demands.slice(0, piece.foremost)).map((d) => (
            <li key={d.skill}>
              <button
                type="button"
                className="flex min-h-touch w-full items-center justify-between gap-3 rounded px-1 text-left hover:bg-fold"
                onClick={() => change(d)}
              >
                <span>
                  {d.name}
                  {d.origin === "teacher" && <span className="fine"> (set by you)</span>}
                </span>
                <span className="fine shrink-0 text-right">
                  {d.where}, {nearest(d.weight)}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {!all && piece.demands.length > piece.foremost && (
          <button type="button" className="quiet mr-4" onClick={() => unfold(true)}>
            {piece.demands.length - piece.foremost} more
          </button>
        )}
        <button type="button" className="quiet" onClick={() => add(true)}>
          Add a skill
        </button>
      </details>
      <Sheet
        open={changing !== undefined}
        onOpenChange={(open) => !open && change(undefined)}
        title={changing?.name ?? ""}
        says={`How much does the piece ask for it? It was found at ${changing?.where ?? ""}.`}
      >
        <div className="flex flex-wrap gap-2">
          {weights.map((w) => (
            <button
              key={w.weight}
              type="button"
              className="press"
              aria-pressed={changing && nearest(changing.weight) === w.words}
              disabled={overrule.isPending}
              onClick={() =>
                changing &&
                overrule.mutate(
                  {
                    kind: "demand",
                    skill: changing.skill,
                    weight: w.weight,
                    bars: changing.bars.length > 0 ? changing.bars : undefined,
                  },
                  { onSuccess: () => change(undefined) },
                )
              }
            >
              {w.words}
            </button>
          ))}
        </div>
        <Refused error={overrule.error} />
      </Sheet>
      <AddDemand piece={piece} open={adding} close={() => add(false)} />
    </section>
  );
}

function AddDemand({ piece, open, close }: { piece: Piece; open: boolean; close: () => void }) {
  const skills = useSkills(open);
  const overrule = useOverrule(piece.material.id);
  const family = useFamily(piece.material.instrument);
  const there = new Set(piece.demands.map((d) => d.skill));
  const left = (skills.data ?? []).filter(
    (s) => !there.has(s.id) && (s.instruments.length === 0 || s.instruments.includes(family)),
  );
  const families = [...new Set(left.map((s) => s.family))];
  return (
    <Sheet
      open={open}
      onOpenChange={(o) => !o && close()}
      title="A skill that this piece needs"
      says="Some skills cannot be read from the page; they are yours to set."
    >
      <form
        className="grid gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          const skill = String(new FormData(e.currentTarget).get("skill"));
          overrule.mutate({ kind: "demand", skill, weight: 0.6 }, { onSuccess: close });
        }}
      >
        <Field label="Skill">
          <select name="skill" required>
            {families.map((f) => (
              <optgroup key={f} label={f}>
                {left
                  .filter((s) => s.family === f)
                  .map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.name}
                      {s.found ? "" : " (yours to set)"}
                    </option>
                  ))}
              </optgroup>
            ))}
          </select>
        </Field>
        <Refused error={overrule.error} />
        <button type="submit" className="press press-main" disabled={overrule.isPending || left.length === 0}>
          Add it
        </button>
      </form>
    </Sheet>
  );
}
