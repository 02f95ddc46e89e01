import { useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useMatchTitles } from "../data/known";
import { Refused } from "../parts/Problem";
import { When } from "./When";
import type { Rough } from "./when";

/** A line of the list and what it is taken for: a piece of the library, or a new one. */
export interface Line {
  id: string;
  line: string;
  material?: string;
  title: string;
  sure: boolean;
  when: Rough;
}

/** A list of titles, typed or pasted, one a line: what is meant is found, doubtful lines are asked about. */
export function Pasted(props: {
  ladder: string;
  lines: Line[];
  onChange: (lines: Line[]) => void;
  when: Rough;
}) {
  const [text, setText] = useState("");
  const match = useMatchTitles(props.ladder);
  const set = (id: string, x: Partial<Line>) =>
    props.onChange(props.lines.map((l) => (l.id === id ? { ...l, ...x } : l)));
  const read = () =>
    match.mutate(text, {
      onSuccess: (m: Schemas["TitlesMatched"]) => {
        props.onChange([
          ...props.lines,
          ...m.lines.map((l) => ({ ...l, id: ulid(), when: l.when ?? props.when })),
        ]);
        setText("");
      },
    });
  const doubtful = props.lines.filter((l) => l.material && !l.sure);
  return (
    <section aria-label="A list of pieces">
      <h2 className="text-lg">A list of pieces</h2>
      <textarea
        aria-label="Titles, one a line"
        rows={4}
        className="mt-1 w-full rounded border-[1.5px] border-soft bg-sheet px-3 py-2"
        placeholder={"One title a line, as it stands in the notebook"}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <button type="button" className="press" disabled={match.isPending || !text.trim()} onClick={read}>
        Read the list
      </button>
      <Refused error={match.error} />
      {match.data && props.lines.length > 0 && <p className="fine mt-1">{match.data.sentence}</p>}
      {doubtful.length > 1 && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          <span>{doubtful.length} lines are doubtful.</span>
          <button
            type="button"
            className="press"
            onClick={() => props.onChange(props.lines.map((l) => (l.material ? { ...l, sure: true } : l)))}
          >
            Yes to all
          </button>
        </p>
      )}
      <ul className="mt-2">
        {props.lines.map((l) => (
          <li key={l.id} className="flex flex-wrap items-center gap-2 border-t border-line/60 py-1">
            <span className="min-w-0 flex-1">
              {l.line}
              {l.material && l.title.toLowerCase() !== l.line.toLowerCase() && (
                <span className="fine"> = {l.title}</span>
              )}
            </span>
            {l.material && !l.sure && (
              <span className="flex items-center gap-1">
                <strong className="text-preview">“{l.title}”?</strong>
                <button type="button" className="press px-3" onClick={() => set(l.id, { sure: true })}>
                  Yes
                </button>
                <button
                  type="button"
                  className="press px-3"
                  onClick={() => set(l.id, { material: undefined, title: "", sure: true })}
                >
                  No, new
                </button>
              </span>
            )}
            {!l.material && <span className="fine">new piece</span>}
            <When value={l.when} onChange={(when) => set(l.id, { when })} label={`When: ${l.line}`} />
            <button
              type="button"
              className="quiet"
              onClick={() => props.onChange(props.lines.filter((x) => x.id !== l.id))}
            >
              Remove<span className="sr-only"> {l.line}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
