import { useState } from "react";
import { useBook } from "../data/library";
import { Problem, Waiting } from "../parts/Problem";
import { Why } from "../parts/Why";
import { Gradation } from "./Gradation";
import { LineNote } from "./LineNote";

/** A book: its sentence, its gradation, and the piece that was touched. */
export function Book({ source, player }: { source: string; player: string }) {
  const book = useBook(source, player);
  const [at, setAt] = useState<number>();
  if (book.isPending) return <Waiting />;
  if (book.error) return <Problem error={book.error} again={() => book.refetch()} />;
  const b = book.data;
  const cliff = b.lines.findIndex((l, i) => i > 0 && l.cliff);
  const line = b.lines[at ?? Math.max(0, cliff)];
  return (
    <section aria-label={b.title}>
      <h2 className="text-[1.5rem]">{b.title}</h2>
      <p className="say">{b.sentence}</p>
      <p className="fine flex flex-wrap items-center">
        For {b.player}; comfortable leap
        <Why label="Why this comfortable leap?" shown={b.reach.toFixed(1)}>
          <p>{b.reachWhy}.</p>
        </Why>
      </p>
      <Gradation book={b} at={line ? b.lines.indexOf(line) : -1} onPick={setAt} />
      {line && <LineNote key={line.material} line={line} />}
    </section>
  );
}
