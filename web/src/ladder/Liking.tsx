import type { Schemas } from "../contract/client";
import { entry, useAppend } from "../data/entries";
import { firstName } from "../data/words";
import { Refused } from "../parts/Problem";

const signs: [Schemas["Entry"]["sign"] & string, string][] = [
  ["first", "Played it first"],
  ["asked", "Asked for it"],
  ["unasked", "Practised it unasked"],
  ["liked", "Likes it"],
  ["disliked", "Does not like it"],
];

/** What the student showed about a piece; taste is learned from it. */
export function Liking({ rung, student }: { rung: Schemas["Rung"]; student: Schemas["Student"] }) {
  const append = useAppend(student.ladder);
  return (
    <details className="mt-3">
      <summary className="fine min-h-touch content-center">
        What {firstName(student.name)} showed{rung.liking?.length ? `: ${rung.liking.join(", ")}` : ""}
      </summary>
      <div className="flex flex-wrap gap-x-1">
        {signs.map(([sign, name]) => (
          <button
            key={sign}
            type="button"
            className="quiet"
            disabled={append.isPending}
            onClick={() => append.mutate([entry("liking", { material: rung.material, sign })])}
          >
            {name}
          </button>
        ))}
      </div>
      {rung.tags?.length ? <p className="fine">The piece is {rung.tags.join(", ")}.</p> : null}
      <Refused error={append.error} />
    </details>
  );
}
