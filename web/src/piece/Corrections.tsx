import { type FormEvent, useState } from "react";
import type { Schemas } from "../contract/client";
import { scoreFiles } from "../data/files";
import { useBringScore, useDescribe, useOverrule } from "../data/library";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

type Piece = Schemas["Piece"];

/** What the teacher has set against the score; it can be taken back. */
export function Corrections({ piece }: { piece: Piece }) {
  const overrule = useOverrule(piece.material.id);
  if (piece.overruled.length === 0) return null;
  return (
    <section aria-label="Your corrections" className="border-b border-line py-3">
      <h3>Your corrections</h3>
      <ul>
        {piece.overruled.map((o) => (
          <li key={o.key} className="flex items-center justify-between gap-2">
            <span>
              {o.words}
              {o.lost && <span className="fine"> (has no place in this file; it is kept)</span>}
            </span>
            <button
              type="button"
              className="quiet shrink-0"
              disabled={overrule.isPending}
              onClick={() =>
                overrule.mutate({
                  kind: o.key.split(" ")[0] as Schemas["NewOverruling"]["kind"],
                  key: o.key,
                  remove: true,
                })
              }
            >
              take back<span className="sr-only"> {o.words}</span>
            </button>
          </li>
        ))}
      </ul>
      <Refused error={overrule.error} />
    </section>
  );
}

/** Title, tempo, another file, and the ways out. */
export function Paper({ piece, ladder }: { piece: Piece; ladder?: string }) {
  const [open, setOpen] = useState<"title" | "file" | "out">();
  const close = () => setOpen(undefined);
  return (
    <section aria-label="The file" className="py-3">
      <div className="-mx-2 flex flex-wrap">
        <button type="button" className="quiet" onClick={() => setOpen("title")}>
          Title and tempo
        </button>
        <button type="button" className="quiet" onClick={() => setOpen("file")}>
          {piece.hasScore ? "Replace the score" : "Add its score"}
        </button>
        {piece.hasScore && (
          <button type="button" className="quiet" onClick={() => setOpen("out")}>
            Export it
          </button>
        )}
      </div>
      <FocusPoints key={piece.focusPoints.join("|")} piece={piece} />
      <Sheet
        open={open === "title"}
        onOpenChange={(o) => !o && close()}
        title="Title and tempo"
        says="As your studio calls it."
      >
        <TitleForm piece={piece} done={close} />
      </Sheet>
      <Sheet
        open={open === "file"}
        onOpenChange={(o) => !o && close()}
        title={piece.hasScore ? "Another file of this piece" : "The score of this piece"}
        says="MusicXML, ABC or MIDI. What you corrected goes to the same bars in the new file."
      >
        <FileForm piece={piece} />
      </Sheet>
      <Sheet
        open={open === "out"}
        onOpenChange={(o) => !o && close()}
        title="Export it"
        says="As a file that other programs read, with your corrections."
      >
        <Export piece={piece} ladder={ladder} />
      </Sheet>
    </section>
  );
}

/** The focus points of a piece, for all students; one whose words stay keeps its marks. */
function FocusPoints({ piece }: { piece: Piece }) {
  const describe = useDescribe(piece.material.id);
  return (
    <details>
      <summary className="min-h-touch content-center font-semibold">Focus points</summary>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const points = String(new FormData(e.currentTarget).get("points"))
            .split("\n")
            .map((t) => t.trim())
            .filter(Boolean);
          describe.mutate({
            title: piece.material.title,
            composer: piece.material.composer,
            focusPoints: points,
          });
        }}
      >
        <textarea
          name="points"
          aria-label="Focus points, one a line"
          rows={Math.max(3, piece.focusPoints.length + 1)}
          defaultValue={piece.focusPoints.join("\n")}
          className="w-full rounded border-[1.5px] border-soft bg-sheet px-3 py-2"
        />
        <Refused error={describe.error} />
        <button type="submit" className="press" disabled={describe.isPending}>
          Save the focus points
        </button>
      </form>
    </details>
  );
}

function TitleForm({ piece, done }: { piece: Piece; done: () => void }) {
  const material = piece.material.id;
  const overrule = useOverrule(material);
  const describe = useDescribe(material);
  const save = (form: FormData) => {
    const tempo = Number(form.get("tempo"));
    const other = piece.hasScore && tempo !== Math.round(piece.tempo);
    describe.mutate(
      { title: String(form.get("title")), composer: String(form.get("composer")) },
      {
        onSuccess: () => {
          if (!other) done();
          else
            overrule.mutate(tempo ? { kind: "tempo", tempo } : { kind: "tempo", remove: true }, {
              onSuccess: done,
            });
        },
      },
    );
  };
  return (
    <form
      className="grid gap-3"
      onSubmit={(e: FormEvent<HTMLFormElement>) => {
        e.preventDefault();
        save(new FormData(e.currentTarget));
      }}
    >
      <Field label="Title">
        <input name="title" required maxLength={200} defaultValue={piece.material.title} />
      </Field>
      <Field label="Composer">
        <input name="composer" maxLength={200} defaultValue={piece.material.composer} />
      </Field>
      {piece.hasScore && (
        <Field label="Final tempo, crotchets a minute (empty for the one in the file)">
          <input
            name="tempo"
            type="number"
            min={10}
            max={400}
            defaultValue={piece.tempo ? Math.round(piece.tempo) : ""}
          />
        </Field>
      )}
      <Refused error={describe.error ?? overrule.error} />
      <button type="submit" className="press press-main" disabled={describe.isPending || overrule.isPending}>
        Save
      </button>
    </form>
  );
}

function FileForm({ piece }: { piece: Piece }) {
  const material = piece.material.id;
  const bring = useBringScore(material, piece.material.instrument);
  return (
    <form
      className="grid gap-3"
      onSubmit={(e: FormEvent<HTMLFormElement>) => {
        e.preventDefault();
        bring.mutate(new FormData(e.currentTarget).get("file"));
      }}
    >
      <Field label="The file">
        <input name="file" type="file" required accept={scoreFiles} />
      </Field>
      <Refused error={bring.error} />
      {bring.data && (
        <p role="status">
          Read. {bring.data.kept} of your corrections hold
          {bring.data.lost.length > 0
            ? `; these have no place in it and are kept for another file: ${bring.data.lost.join("; ")}`
            : ""}
          .
        </p>
      )}
      <button type="submit" className="press press-main" disabled={bring.isPending}>
        {bring.isPending ? "Reading …" : piece.hasScore ? "Replace it" : "Read it"}
      </button>
    </form>
  );
}

function Export({ piece, ladder }: { piece: Piece; ladder?: string }) {
  const [with_, setWith] = useState({ fingers: false, colours: false, chunks: false });
  const query = (format: string) => {
    const q = new URLSearchParams({ format });
    if (with_.fingers) q.set("fingers", "true");
    if (format === "musicxml" && with_.colours) q.set("colours", "true");
    if (format === "musicxml" && with_.chunks) q.set("chunks", "true");
    if (format === "musicxml" && with_.chunks && ladder) q.set("ladder", ladder);
    return `/api/materials/${piece.material.id}/export?${q}`;
  };
  const choices = {
    fingers: "with the proposed fingers (a suggestion)",
    colours: "MusicXML with the colours of the directions",
    chunks: "MusicXML with the chunks numbered",
  } as const;
  return (
    <div className="grid gap-2">
      {(Object.keys(choices) as (keyof typeof choices)[]).map((k) => (
        <label key={k} className="flex min-h-touch items-center gap-3">
          <input
            type="checkbox"
            className="size-5 min-h-0 accent-working"
            checked={with_[k]}
            onChange={(e) => setWith({ ...with_, [k]: e.target.checked })}
          />
          {choices[k]}
        </label>
      ))}
      <div className="flex flex-wrap gap-2">
        {(["musicxml", "midi", "abc"] as const).map((f) => (
          <a key={f} className="press" href={query(f)} download>
            {{ musicxml: "MusicXML", midi: "MIDI", abc: "ABC" }[f]}
          </a>
        ))}
      </div>
    </div>
  );
}
