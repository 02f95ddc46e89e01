import { useState } from "react";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useImport, useReadTable } from "../data/library";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";
import { StrandOptions } from "../parts/StrandOptions";
import { SkillWords } from "./SkillWords";

const fieldNames: Record<string, string> = {
  title: "title",
  composer: "composer",
  strand: "strand",
  unit: "unit",
  page: "page",
  tempo: "tempo (crotchets a minute)",
  bars: "bars",
  distinctBars: "different bars",
  texture: "texture",
  skills: "what it needs",
  focusPoints: "focus points",
  tags: "what it is like",
};

/** Makes a book of a teacher's spreadsheet: columns are matched, every faulty row is named, nothing comes in by half. */
export function ImportTable(props: { instrument: Schemas["Instrument"]; onKept: (source: string) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        Import a spreadsheet
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Make a book of a spreadsheet"
        says="Saved as CSV, one piece a row, the names of the columns in the first row."
      >
        <Form
          instrument={props.instrument}
          kept={(id) => {
            setOpen(false);
            props.onKept(id);
          }}
        />
      </Sheet>
    </>
  );
}

function Form(props: { instrument: Schemas["Instrument"]; kept: (source: string) => void }) {
  // The book gets its id when the sheet opens: sent twice, it is there once.
  const [source] = useState(ulid);
  const [data, setData] = useState("");
  const [title, setTitle] = useState("");
  const [strand, setStrand] = useState<Schemas["Strand"]>("method");
  const [fields, setFields] = useState<string[]>([]);
  const [leaveOut, setLeaveOut] = useState(false);
  const [words, setWords] = useState<Schemas["SkillWord"][]>([]);
  const bring = useImport(() => props.kept(source));
  const send = (p: {
    fields: string[];
    only: boolean;
    data: string;
    title: string;
    words?: Schemas["SkillWord"][];
  }) =>
    bring.mutate({
      kind: "csv",
      data: p.data,
      source,
      title: p.title,
      instrument: props.instrument,
      strand,
      fields: p.fields,
      try: p.only,
      leaveOut,
      words: p.words ?? words,
    });
  const look = useReadTable(({ text, name, table }) => {
    const guessed = table.columns.map((c) => c.field);
    setData(text);
    setTitle(name);
    setFields(guessed);
    if (guessed.includes("title")) send({ data: text, fields: guessed, title: name, only: true });
  });
  const match = (i: number, field: string) => {
    const next = fields.map((f, k) => (k === i ? field : f === field ? "" : f));
    setFields(next);
    if (next.includes("title")) send({ data, fields: next, title, only: true });
  };
  const mean = (word: string, skill: string) => {
    const next = [...words.filter((w) => w.word !== word), { word, skill }];
    setWords(next);
    send({ data, fields, title, only: true, words: next });
  };
  const table = look.data?.table;
  const seen = bring.data;
  const wrong = seen ? seen.faults.length : 0;
  return (
    <div className="grid gap-3">
      <Field label="The file">
        <input
          type="file"
          accept=".csv,.txt,text/csv"
          onChange={(e) => e.target.files?.[0] && look.mutate(e.target.files[0])}
        />
      </Field>
      <Refused error={look.error} />
      {table && (
        <>
          <div className="grid gap-3 sm:grid-cols-2">
            <Field label="Title of the book">
              <input value={title} maxLength={200} onChange={(e) => setTitle(e.target.value)} />
            </Field>
            <Field label="Strand, where no column says it">
              <select value={strand} onChange={(e) => setStrand(e.target.value as Schemas["Strand"])}>
                <StrandOptions />
              </select>
            </Field>
          </div>
          <fieldset className="m-0 border-0 p-0">
            <legend className="fine">
              {table.rows} rows, {table.columns.length} columns: what does each hold?
            </legend>
            <ul>
              {table.columns.map((c, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: columns may have equal names
                <li key={i} className="flex items-center justify-between gap-3 border-t border-line/60 py-1">
                  <span className="min-w-0">
                    <strong>{c.name || `column ${i + 1}`}</strong>
                    <span className="fine line-clamp-1">{c.samples.join(" · ")}</span>
                  </span>
                  <select
                    aria-label={`What ${c.name || `column ${i + 1}`} holds`}
                    value={fields[i] ?? ""}
                    onChange={(e) => match(i, e.target.value)}
                  >
                    <option value="">not used</option>
                    {table.fields.map((f) => (
                      <option key={f} value={f}>
                        {fieldNames[f] ?? f}
                      </option>
                    ))}
                  </select>
                </li>
              ))}
            </ul>
          </fieldset>
        </>
      )}
      {seen && (
        <p aria-live="polite">
          <strong>{seen.materials}</strong> {seen.materials === 1 ? "row is" : "rows are"} right
          {wrong > 0 && (
            <>
              , <strong className="text-cliff">{wrong} faulty</strong>
            </>
          )}
          .
        </p>
      )}
      {seen && <SkillWords words={seen.words} mean={mean} busy={bring.isPending} />}
      {seen && wrong > 0 && (
        <>
          <ul aria-label="Faulty rows" className="max-h-48 overflow-y-auto">
            {seen.faults.map((f) => (
              <li key={`${f.line} ${f.column} ${f.says}`} className="border-t border-line/60 py-1">
                <span className="fine figures">
                  line {f.line}
                  {f.column && `, ${f.column}`}
                </span>{" "}
                {f.title && <strong>{f.title}: </strong>}
                {f.says}
              </li>
            ))}
          </ul>
          <label className="flex min-h-touch items-center gap-2">
            <input
              type="checkbox"
              className="size-5 min-h-0 accent-working"
              checked={leaveOut}
              onChange={(e) => setLeaveOut(e.target.checked)}
            />
            Leave the faulty rows out and bring in the others
          </label>
        </>
      )}
      {seen && seen.notes.length > 0 && (
        <ul aria-label="To look at" className="max-h-32 overflow-y-auto border-l-4 border-preview pl-3">
          {seen.notes.map((n) => (
            <li key={n.line}>
              <span className="fine figures">line {n.line}</span> <strong>{n.title}:</strong> {n.says}
            </li>
          ))}
        </ul>
      )}
      {seen?.problems.map((p) => (
        <p key={p} role="alert" className="text-cliff">
          {p}.
        </p>
      ))}
      <Refused error={bring.error} />
      <button
        type="button"
        className="press press-main"
        disabled={
          !table ||
          !title.trim() ||
          bring.isPending ||
          !seen ||
          seen.materials === 0 ||
          seen.problems.length > 0 ||
          (wrong > 0 && !leaveOut)
        }
        onClick={() => send({ data, fields, title, only: false })}
      >
        Bring in {seen ? seen.materials : ""} pieces
      </button>
    </div>
  );
}
