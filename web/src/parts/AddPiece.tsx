import { type DragEvent, type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { scoreFiles } from "../data/files";
import { type Looked, useAddPieces, useReadScores } from "../data/library";
import { firstName } from "../data/words";
import { Skipped } from "../piece/Skipped";
import { FindForLadder } from "./FindForLadder";
import { Refused } from "./Problem";
import { Field, Sheet } from "./Sheet";
import { StrandOptions } from "./StrandOptions";

/** Anything onto the ladder: a book, a piece, an exercise, a title alone, or a score of the teacher's own. */
export function AddPiece({ student }: { student: Schemas["Student"] }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        Add a piece
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Add to ${student.called || firstName(student.name)}’s ladder`}
        says="A book, a piece, an exercise, a title alone, or files of your own."
      >
        <FindForLadder student={student} />
        <h2 className="mt-6 border-t border-line pt-4 text-lg">Add a piece of your own</h2>
        <p className="fine mb-2">
          MusicXML (.musicxml, .xml, .mxl), ABC or MIDI, as other programs write it. It stays in your studio.
          Several files can be chosen, or dropped here, at once.
        </p>
        <Form student={student} />
      </Sheet>
    </>
  );
}

/** A piece of one of the files that were read. */
type Pick = `${number} ${number}`;
const pick = (file: number, piece: number): Pick => `${file} ${piece}`;

function Form({ student }: { student: Schemas["Student"] }) {
  // A piece gets its id when it is found: sent twice, it is added once.
  const [ids, setIds] = useState(new Map<Pick, string>());
  const [wanted, setWanted] = useState<Set<Pick>>(new Set());
  const [over, setOver] = useState(false);
  const navigate = useNavigate();
  const look = useReadScores(student.instrument, ({ read }) => {
    const found = read.flatMap((r, file) => r.pieces.map((p) => ({ at: pick(file, p.piece), same: p.same })));
    setIds(new Map(found.map((f) => [f.at, ulid()])));
    setWanted(new Set(found.filter((f) => !f.same).map((f) => f.at)));
  });
  const read = look.data?.read ?? [];
  const looked = read.length > 0;
  const add = useAddPieces(student.ladder, (first) => navigate(`/piece/${first}?ladder=${student.ladder}`));
  const give = (files: FileList | null) => {
    add.reset();
    look.mutate([...(files ?? [])]);
  };
  const dropped = (e: DragEvent) => {
    e.preventDefault();
    setOver(false);
    if (e.dataTransfer.files.length > 0) give(e.dataTransfer.files);
  };
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    add.mutate(
      read.flatMap((one, file) =>
        one.pieces
          .filter((p) => wanted.has(pick(file, p.piece)))
          .map((p) => ({
            id: ids.get(pick(file, p.piece)) ?? ulid(),
            title: (wanted.size === 1 && text("title")) || undefined,
            strand: text("strand") as Schemas["Strand"],
            instrument: student.instrument,
            fileName: one.file.name,
            score: one.score,
            piece: p.piece,
            focusPoints: lines(text("focus")),
          })),
      ),
    );
  };
  return (
    <form
      onSubmit={send}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={dropped}
      className={`grid gap-3 rounded-md ${over ? "outline-2 outline-offset-4 outline-dashed outline-working" : ""}`}
    >
      <Field label="The files">
        <input
          name="file"
          type="file"
          multiple
          accept={scoreFiles}
          onChange={(e) => e.target.files?.length && give(e.target.files)}
        />
      </Field>
      {!looked && !look.data && (
        <p className="fine">
          No file at hand?{" "}
          <Link className="underline" to={`/write?ladder=${student.ladder}`}>
            Type a tune
          </Link>{" "}
          and see it engraved.
        </p>
      )}
      {look.isPending && (
        <p role="status" className="fine">
          Reading the score …
        </p>
      )}
      {look.data?.refused.map((r) => (
        <Refused
          key={r.name}
          error={r.why.message.includes(r.name) ? r.why : new Error(`“${r.name}”: ${r.why.message}`)}
        />
      ))}
      {looked && (
        <>
          {read.map((one, file) => (
            <Found
              key={`${one.file.name} ${one.file.size}`}
              looked={one}
              wanted={(piece) => wanted.has(pick(file, piece))}
              want={(piece, yes) => {
                const next = new Set(wanted);
                if (yes) next.add(pick(file, piece));
                else next.delete(pick(file, piece));
                setWanted(next);
              }}
              ladder={student.ladder}
              named={read.length > 1}
            />
          ))}
          <div className="grid gap-3 sm:grid-cols-2">
            {wanted.size < 2 && (
              <Field label="Title (from the file, if left empty)">
                <input name="title" maxLength={200} autoComplete="off" />
              </Field>
            )}
            <Field label="Strand">
              <select name="strand" defaultValue="repertoire">
                <StrandOptions />
              </select>
            </Field>
          </div>
          <Field label="Focus points, one a line (the usual ones, if left empty)">
            <textarea
              name="focus"
              rows={2}
              className="rounded-md border-[1.5px] border-soft bg-sheet px-3 py-2"
              placeholder="steady pulse"
            />
          </Field>
        </>
      )}
      <Refused error={add.error} />
      <button
        type="submit"
        className="press press-main"
        disabled={add.isPending || !looked || wanted.size === 0}
      >
        {add.isPending
          ? "Putting it on the ladder …"
          : `Put ${wanted.size > 1 ? `${wanted.size} pieces` : "it"} on ${firstName(student.name)}’s ladder`}
      </button>
    </form>
  );
}

/** What is in the file: its pieces to choose from, and what of each was not taken over. */
function Found(props: {
  looked: Looked;
  wanted: (piece: number) => boolean;
  want: (piece: number, yes: boolean) => void;
  ladder: string;
  /** One of several files: it says which */
  named: boolean;
}) {
  const { looked, wanted, want } = props;
  return (
    <fieldset className="m-0 border-0 p-0" aria-label="What is in the file">
      <legend className="fine">
        {props.named && `${looked.file.name}: `}
        {looked.format}, {looked.pieces.length === 1 ? "one piece" : `${looked.pieces.length} pieces`}
      </legend>
      <ul className="max-h-64 overflow-y-auto">
        {looked.pieces.map((p) => (
          <li key={p.piece} className="border-t border-line py-1 first:border-0">
            <label className="flex min-h-touch items-center gap-3">
              <input
                type="checkbox"
                className="size-5 min-h-0 shrink-0 accent-working"
                checked={wanted(p.piece)}
                onChange={(e) => want(p.piece, e.target.checked)}
              />
              <span className="min-w-0">
                <strong className="break-words">{p.title || looked.file.name}</strong>{" "}
                <span className="fine">
                  {p.bars} bars, {p.notes} notes
                </span>
              </span>
            </label>
            {p.same && (
              <p className="fine ml-8">
                You have this music already:{" "}
                <Link className="underline" to={`/piece/${p.same}?ladder=${props.ladder}`}>
                  {p.sameTitle}
                </Link>
                , with your corrections.
              </p>
            )}
            <div className="ml-8">
              <Skipped list={p.skipped} />
            </div>
          </li>
        ))}
      </ul>
    </fieldset>
  );
}

const lines = (text: string) => {
  const list = text
    .split("\n")
    .map((l) => l.trim())
    .filter(Boolean);
  return list.length > 0 ? list : undefined;
};
