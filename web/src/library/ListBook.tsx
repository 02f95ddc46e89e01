import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { base64 } from "../data/files";
import { useImport } from "../data/library";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";
import { StrandOptions } from "../parts/StrandOptions";

/** Makes a book of a list of titles, one a line, in the order of the book. */
export function ListBook(props: { instrument: Schemas["Instrument"]; onKept: (source: string) => void }) {
  const [open, setOpen] = useState(false);
  const [source, setSource] = useState(ulid);
  const [notes, setNotes] = useState<Schemas["TableFault"][]>([]);
  const bring = useImport((done) => {
    if (!done.kept) return;
    setNotes(done.notes);
    if (done.notes.length === 0) setOpen(false);
    props.onKept(source);
    setSource(ulid());
  });
  const send = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    bring.mutate({
      kind: "list",
      data: await base64(new File([String(f.get("titles"))], "list.txt")),
      source,
      title: String(f.get("title")),
      instrument: props.instrument,
      strand: f.get("strand") as Schemas["Strand"],
      try: false,
      leaveOut: false,
    });
  };
  return (
    <>
      <button
        type="button"
        className="press"
        onClick={() => {
          setNotes([]);
          setOpen(true);
        }}
      >
        Add a book
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="A book by its titles"
        says="Type or paste the titles, one a line, as they stand in the book, with the page if you have it. Scores can come later, piece by piece."
      >
        {notes.length > 0 && (
          <div role="status" className="mb-4 border-l-4 border-preview pl-3">
            <p>The book is added. Please look at:</p>
            <ul>
              {notes.map((n) => (
                <li key={n.line}>
                  line {n.line}, “{n.title}”: {n.says}
                </li>
              ))}
            </ul>
            <button type="button" className="quiet -ml-2.5" onClick={() => setOpen(false)}>
              That is right
            </button>
          </div>
        )}
        <form onSubmit={send} className="grid gap-3">
          <Field label="Title of the book">
            <input name="title" required maxLength={200} autoComplete="off" />
          </Field>
          <Field label="Strand">
            <select name="strand" defaultValue="method">
              <StrandOptions />
            </select>
          </Field>
          <Field label="The pieces, one a line">
            <textarea
              name="titles"
              required
              rows={8}
              className="rounded border-[1.5px] border-soft bg-sheet px-3 py-2"
            />
          </Field>
          <Refused error={bring.error} />
          <button type="submit" className="press press-main" disabled={bring.isPending}>
            Add the book
          </button>
        </form>
      </Sheet>
    </>
  );
}
