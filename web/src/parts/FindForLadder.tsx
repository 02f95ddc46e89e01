import { useDeferredValue, useState } from "react";
import type { Schemas } from "../contract/client";
import { useFind, usePutOn } from "../data/known";
import { Refused } from "./Problem";
import { StrandOptions } from "./StrandOptions";

const kinds = { book: "book", piece: "piece", exercise: "exercise" };

/** One search over books, pieces and exercises; what is not there is added by its title alone. */
export function FindForLadder({ student }: { student: Schemas["Student"] }) {
  const [wanted, setWanted] = useState("");
  const [strand, setStrand] = useState<Schemas["Strand"]>("repertoire");
  const [put, setPut] = useState<string[]>([]);
  const found = useFind(student.ladder, useDeferredValue(wanted.trim()));
  const add = usePutOn(student.ladder, (title) => setPut((list) => [...list, title]));
  const title = wanted.trim();
  const there = found.data?.some((f) => f.kind === "piece" && f.title.toLowerCase() === title.toLowerCase());
  return (
    <div>
      <input
        type="search"
        aria-label="Search books, pieces and exercises"
        placeholder="Search, or type a new title"
        className="w-full"
        value={wanted}
        onChange={(e) => setWanted(e.target.value)}
      />
      <ul className="mt-2 max-h-72 overflow-y-auto" aria-busy={found.isFetching}>
        {title !== "" && !there && (
          <li className="flex flex-wrap items-center gap-2 border-b border-line/60 py-1">
            <span className="min-w-0 flex-1">
              “{title}” <span className="fine">new, by its title alone</span>
            </span>
            <select
              aria-label="Strand of the new piece"
              value={strand}
              onChange={(e) => setStrand(e.target.value as Schemas["Strand"])}
            >
              <StrandOptions />
            </select>
            <button
              type="button"
              className="press"
              disabled={add.isPending}
              onClick={() => add.mutate({ title, strand, instrument: student.instrument })}
            >
              Add it
            </button>
          </li>
        )}
        {found.data?.map((f) => (
          <li key={`${f.kind} ${f.id}`} className="flex items-center gap-3 border-b border-line/60 py-1">
            <span className="min-w-0 flex-1">
              {f.title}
              <span className="fine block">{[kinds[f.kind], f.from].filter(Boolean).join(" · ")}</span>
            </span>
            {f.onLadder || put.includes(f.title) ? (
              <span className="fine">on the ladder</span>
            ) : (
              <button type="button" className="press" disabled={add.isPending} onClick={() => add.mutate(f)}>
                Add<span className="sr-only"> {f.title}</span>
              </button>
            )}
          </li>
        ))}
        {found.data?.length === 0 && title === "" && (
          <li className="fine">Your library is empty. Type a title to begin.</li>
        )}
      </ul>
      {put.length > 0 && (
        <p role="status" className="fine mt-1">
          Added: {put.join(", ")}
        </p>
      )}
      <Refused error={add.error} />
    </div>
  );
}
