import { useState } from "react";
import { base64 } from "../data/files";
import { useImport } from "../data/library";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

/** Brings a curriculum in that was taken out somewhere, after a look at what is in it. */
export function ImportFile() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        Import a file
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Bring in a curriculum"
        says="A JSON file in the program’s own open form (docs/curriculum.schema.json). All of it comes in, or nothing."
      >
        <Form close={() => setOpen(false)} />
      </Sheet>
    </>
  );
}

function Form({ close }: { close: () => void }) {
  const [data, setData] = useState("");
  const bring = useImport(close);
  const send = (p: { data: string; only: boolean }) =>
    bring.mutate({ kind: "json", data: p.data, try: p.only });
  const look = async (file?: File) => {
    if (!file) return;
    const text = await base64(file);
    setData(text);
    send({ data: text, only: true });
  };
  const seen = bring.data;
  return (
    <div className="grid gap-3">
      <Field label="The file">
        <input type="file" accept=".json,application/json" onChange={(e) => look(e.target.files?.[0])} />
      </Field>
      {seen && (
        <p>
          {seen.sources.length} {seen.sources.length === 1 ? "book" : "books"}, {seen.materials} pieces,{" "}
          {seen.skills} skills of its own.
        </p>
      )}
      {seen && seen.problems.length > 0 && (
        <div role="alert">
          <p className="font-semibold text-cliff">It cannot come in as it is:</p>
          <ul className="max-h-60 list-disc overflow-y-auto pl-5">
            {seen.problems.map((p) => (
              <li key={p}>{p}</li>
            ))}
          </ul>
        </div>
      )}
      <Refused error={bring.error} />
      <button
        type="button"
        className="press press-main"
        disabled={bring.isPending || !seen || seen.problems.length > 0 || seen.materials === 0}
        onClick={() => send({ data, only: false })}
      >
        Bring it in
      </button>
    </div>
  );
}
