import { useMutation, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { ulid } from "ulid";
import { body, client, type Schemas } from "../contract/client";
import { strandNames } from "../data/words";
import { Refused } from "./Problem";
import { Field, Sheet } from "./Sheet";

const mostBytes = 12 * 1024 * 1024;

/** Brings a score of the teacher's own into the library and puts it on the ladder. */
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
        title="Add a piece of your own"
        says="A MusicXML file (.musicxml, .xml or .mxl), as notation programs export it. It stays in your studio."
      >
        <Form student={student} />
      </Sheet>
    </>
  );
}

function Form({ student }: { student: Schemas["Student"] }) {
  const [id] = useState(ulid);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const add = useMutation({
    mutationFn: async (form: FormData) => {
      const file = form.get("file");
      if (!(file instanceof File) || file.size === 0) throw new Error("Choose a file first.");
      if (file.size > mostBytes)
        throw new Error(
          `“${file.name}” has ${Math.round(file.size / 1024 / 1024)} MB; a score may have 12 MB at most. Nothing was changed.`,
        );
      const text = (name: string) => String(form.get(name) ?? "").trim();
      const piece = await body(
        client.POST("/materials", {
          body: {
            id,
            title: text("title") || undefined,
            strand: text("strand") as Schemas["Strand"],
            instrument: student.instrument,
            fileName: file.name,
            score: await base64(file),
            focusPoints: lines(text("focus")),
          },
        }),
      );
      await body(
        client.PUT("/ladders/{ladder}/rungs/{material}", {
          params: { path: { ladder: student.ladder, material: piece.id } },
        }),
      );
      return piece;
    },
    onSuccess: async (piece) => {
      await queries.invalidateQueries();
      navigate(`/piece/${piece.id}?ladder=${student.ladder}`);
    },
  });
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    add.mutate(new FormData(e.currentTarget));
  };
  return (
    <form onSubmit={send} className="grid gap-3">
      <Field label="The file">
        <input
          name="file"
          type="file"
          accept=".musicxml,.xml,.mxl"
          required
          className="py-1.5 file:mr-3 file:min-h-9 file:rounded-full file:border-[1.5px] file:border-ink file:px-4"
        />
      </Field>
      <div className="grid gap-3 sm:grid-cols-2">
        <Field label="Title (from the file, if left empty)">
          <input name="title" maxLength={200} autoComplete="off" />
        </Field>
        <Field label="Strand">
          <select name="strand" defaultValue="repertoire">
            {Object.entries(strandNames).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        </Field>
      </div>
      <Field label="Focus points, one a line (the usual ones, if left empty)">
        <textarea
          name="focus"
          rows={3}
          className="rounded-md border-[1.5px] border-soft bg-sheet px-3 py-2"
          placeholder="steady pulse"
        />
      </Field>
      <Refused error={add.error} />
      <button type="submit" className="press press-main" disabled={add.isPending}>
        {add.isPending
          ? "Reading the score …"
          : `Read it and put it on ${student.name.split(" ")[0]}’s ladder`}
      </button>
    </form>
  );
}

const lines = (text: string) => {
  const list = text
    .split("\n")
    .map((l) => l.trim())
    .filter(Boolean);
  return list.length > 0 ? list : undefined;
};

function base64(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^data:[^,]*,/, ""));
    reader.onerror = () => reject(new Error(`“${file.name}” cannot be read from this device.`));
    reader.readAsDataURL(file);
  });
}
