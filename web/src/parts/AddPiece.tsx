import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { scoreFiles } from "../data/files";
import { type Looked, useAddPieces, useReadScore } from "../data/library";
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
        says="A book, a piece, an exercise, a title alone, or a file of your own."
      >
        <FindForLadder student={student} />
        <h2 className="mt-6 border-t border-line pt-4 text-lg">Add a piece of your own</h2>
        <p className="fine mb-2">
          MusicXML (.musicxml, .xml, .mxl), ABC or MIDI, as other programs write it. It stays in your studio.
        </p>
        <Form student={student} />
      </Sheet>
    </>
  );
}

function Form({ student }: { student: Schemas["Student"] }) {
  // The pieces get their ids when the form opens: sent twice, they are added once.
  const [ids] = useState(() => Array.from({ length: 500 }, () => ulid()));
  const [wanted, setWanted] = useState<number[]>([]);
  const navigate = useNavigate();
  const look = useReadScore(student.instrument, (read) =>
    setWanted(read.pieces.filter((p) => !p.same).map((p) => p.piece)),
  );
  const looked = look.data;
  const add = useAddPieces(student.ladder, (first) => navigate(`/piece/${first}?ladder=${student.ladder}`));
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    if (!looked) return;
    const form = new FormData(e.currentTarget);
    const text = (name: string) => String(form.get(name) ?? "").trim();
    add.mutate(
      wanted.map((piece) => ({
        id: ids[piece] ?? ulid(),
        title: (wanted.length === 1 && text("title")) || undefined,
        strand: text("strand") as Schemas["Strand"],
        instrument: student.instrument,
        fileName: looked.file.name,
        score: looked.score,
        piece,
        focusPoints: lines(text("focus")),
      })),
    );
  };
  return (
    <form onSubmit={send} className="grid gap-3">
      <Field label="The file">
        <input
          name="file"
          type="file"
          accept={scoreFiles}
          required
          onChange={(e) => {
            add.reset();
            look.mutate(e.target.files?.[0] ?? null);
          }}
        />
      </Field>
      {!looked && !look.error && (
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
      <Refused error={look.error} />
      {looked && (
        <>
          <Found looked={looked} wanted={wanted} want={setWanted} ladder={student.ladder} />
          <div className="grid gap-3 sm:grid-cols-2">
            {wanted.length < 2 && (
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
        disabled={add.isPending || !looked || wanted.length === 0}
      >
        {add.isPending
          ? "Putting it on the ladder …"
          : `Put ${wanted.length > 1 ? `${wanted.length} pieces` : "it"} on ${firstName(student.name)}’s ladder`}
      </button>
    </form>
  );
}

/** What is in the file: its pieces to choose from, and what of each was not taken over. */
function Found(props: { looked: Looked; wanted: number[]; want: (list: number[]) => void; ladder: string }) {
  const { looked, wanted, want } = props;
  return (
    <fieldset className="m-0 border-0 p-0" aria-label="What is in the file">
      <legend className="fine">
        {looked.format}, {looked.pieces.length === 1 ? "one piece" : `${looked.pieces.length} pieces`}
      </legend>
      <ul className="max-h-64 overflow-y-auto">
        {looked.pieces.map((p) => (
          <li key={p.piece} className="border-t border-line py-1 first:border-0">
            <label className="flex min-h-touch items-center gap-3">
              <input
                type="checkbox"
                className="size-5 min-h-0 shrink-0 accent-working"
                checked={wanted.includes(p.piece)}
                onChange={(e) =>
                  want(
                    e.target.checked
                      ? [...wanted, p.piece].sort((a, b) => a - b)
                      : wanted.filter((n) => n !== p.piece),
                  )
                }
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
