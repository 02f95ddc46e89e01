import type { Schemas } from "../contract/client";
import { useSkills } from "../data/library";

const unsaid = "\u0000";

/** The teacher's own words for skills, each with what it means: said once, remembered for the next spreadsheet. */
export function SkillWords(props: {
  words: Schemas["SpokenWord"][];
  mean: (word: string, skill: string) => void;
  busy: boolean;
}) {
  const skills = useSkills(props.words.length > 0);
  if (props.words.length === 0) return null;
  const names = [...(skills.data ?? [])].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <fieldset className="m-0 border-0 p-0">
      <legend className="fine">Your own words for skills. What each means is remembered.</legend>
      <ul className="max-h-60 overflow-y-auto">
        {props.words.map((w) => (
          <li key={w.word} className="flex items-center justify-between gap-3 border-t border-line/60 py-1">
            <span className="min-w-0 break-words">
              <strong>{w.word}</strong>{" "}
              <span className="fine figures">
                in {w.rows} {w.rows === 1 ? "row" : "rows"}
              </span>
            </span>
            <select
              className="w-1/2 shrink-0"
              aria-label={`What “${w.word}” means`}
              disabled={props.busy}
              value={w.open ? unsaid : w.skill}
              onChange={(e) => props.mean(w.word, e.target.value)}
            >
              {w.open && <option value={unsaid}>not known</option>}
              <option value="">no skill</option>
              {names.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
