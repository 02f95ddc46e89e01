import { type FormEvent, useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { base64 } from "../data/files";
import { useImport } from "../data/library";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";
import { StrandOptions } from "../parts/StrandOptions";

/** A title as a cell of a spreadsheet. */
export const cell = (title: string) => `"${title.replaceAll('"', '""')}"`;

/** Makes a book of a list of titles, one a line, in the order of the book. */
export function ListBook(props: { instrument: Schemas["Instrument"]; onKept: (source: string) => void }) {
  const [open, setOpen] = useState(false);
  const [source, setSource] = useState(ulid);
  const bring = useImport((done) => {
    if (!done.kept) return;
    setOpen(false);
    props.onKept(source);
    setSource(ulid());
  });
  const send = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const titles = String(f.get("titles"))
      .split("\n")
      .map((t) => t.trim())
      .filter(Boolean);
    const table = ["title", ...titles.map(cell)].join("\n");
    bring.mutate({
      kind: "csv",
      data: await base64(new File([table], "list.csv")),
      source,
      title: String(f.get("title")),
      instrument: props.instrument,
      strand: f.get("strand") as Schemas["Strand"],
      fields: ["title"],
      try: false,
      leaveOut: false,
    });
  };
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        Add a book
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="A book by its titles"
        says="Type or paste the titles, one a line, as they stand in the book. Scores can come later, piece by piece."
      >
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
