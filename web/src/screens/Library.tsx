import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { libraryQuery } from "../data/library";
import { useInstruments } from "../data/people";
import { Beside } from "../library/Beside";
import { Book } from "../library/Book";
import { BookList } from "../library/BookList";
import { BookTools } from "../library/BookTools";
import { ImportFile } from "../library/ImportFile";
import { ImportTable } from "../library/ImportTable";
import { ListBook } from "../library/ListBook";
import { LoosePieces } from "../library/LoosePieces";
import { SkillSteps } from "../library/SkillSteps";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";

/** The library: books with their gradation, two of them side by side, in and out. */
export function Library() {
  const [params, setParams] = useSearchParams();
  const instrument = (params.get("for") as Schemas["Instrument"]) ?? "piano";
  const instruments = useInstruments(instrument);
  const library = useQuery(libraryQuery(instrument));
  const [player, setPlayer] = useState("typical");
  const set = (change: Record<string, string | undefined>) => {
    const next: Record<string, string> = { for: instrument };
    for (const [k, v] of Object.entries({ book: params.get("book") ?? undefined, ...change }))
      if (v) next[k] = v;
    setParams(next, { replace: true });
  };
  if (library.isPending) return <Waiting />;
  if (library.error) return <Problem error={library.error} again={() => library.refetch()} />;
  const l = library.data;
  const book = l.books.find((b) => b.id === params.get("book")) ?? l.books[0];
  const beside = l.books.find((b) => b.id === params.get("beside") && b.id !== book?.id);
  return (
    <div className="mx-auto max-w-[88rem] px-4 py-4 sm:px-6">
      <Title of="Library" />
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <h1 className="min-w-0 flex-1 basis-96 text-[1.6rem]">{l.sentence}</h1>
        <div className="flex flex-wrap items-center gap-2">
          <label className="flex items-center gap-2">
            <span className="fine">instrument</span>
            <select
              value={instrument}
              onChange={(e) => setParams({ for: e.target.value }, { replace: true })}
            >
              {instruments.map((i) => (
                <option key={i} value={i}>
                  {i}
                </option>
              ))}
            </select>
          </label>
          <ListBook instrument={instrument} onKept={(id) => set({ book: id })} />
          <SkillSteps />
          <ImportTable instrument={instrument} onKept={(id) => set({ book: id })} />
          <ImportFile />
          <a className="press" href="/api/library/export?format=json" download>
            Export everything
          </a>
        </div>
      </div>
      <div className="mt-4 flex flex-col gap-6 lg:flex-row">
        <aside className="lg:w-[17rem] lg:shrink-0">
          <BookList
            books={l.books}
            picked={book?.id}
            beside={beside?.id}
            onPick={(id) => set({ book: id })}
            onBeside={(id) => set({ beside: id })}
          />
          <LoosePieces list={l.loose} />
          <Concerns list={l.concerns} />
        </aside>
        <div className="min-w-0 flex-1">
          {book && (
            <label className="mb-2 flex flex-wrap items-center gap-2">
              <span className="fine">Show leaps for</span>
              <select value={player} onChange={(e) => setPlayer(e.target.value)}>
                <option value="typical">a typical student of the studio</option>
                <option value="beginner">a beginner</option>
                {l.players.map((p) => (
                  <option key={p.ladder} value={p.ladder}>
                    {p.name}
                  </option>
                ))}
              </select>
            </label>
          )}
          {book && beside && (
            <Beside
              key={`${book.id} ${beside.id}`}
              source={book.id}
              other={beside.id}
              player={player}
              players={l.players}
              close={() => set({ beside: undefined })}
            />
          )}
          {book && !beside && <Book key={book.id} source={book.id} player={player} />}
          {book && !beside && (
            <BookTools
              key={`${book.id} ${book.title}`}
              id={book.id}
              title={book.title}
              retired={book.retired}
            />
          )}
          {!book && (
            <p>There is no book for this instrument yet. Add one by its titles, or bring in a spreadsheet.</p>
          )}
        </div>
      </div>
    </div>
  );
}

function Concerns({ list }: { list: string[] }) {
  if (list.length === 0) return null;
  return (
    <details className="mt-4">
      <summary className="min-h-touch content-center">
        {list.length} {list.length === 1 ? "thing" : "things"} to look at
      </summary>
      <ul className="fine list-disc pl-5">
        {list.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </details>
  );
}
