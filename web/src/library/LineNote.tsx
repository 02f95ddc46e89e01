import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { useDescribe } from "../data/library";
import { strandNames } from "../data/words";
import { LeapParts } from "../parts/LeapParts";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { Why } from "../parts/Why";

/** One piece of a book: its leap with the reasons, what enters in it, its focus points and what it is like. */
export function LineNote({ line }: { line: Schemas["BookLine"] }) {
  return (
    <section aria-label={line.title} className="mt-4 border-t border-line pt-3">
      <p className="fine">
        {[line.unit, line.page ? `page ${line.page}` : "", strandNames[line.strand]]
          .filter(Boolean)
          .join(" · ")}
      </p>
      <h3 className="flex flex-wrap items-baseline gap-x-3 text-[1.3rem]">
        <Link to={`/piece/${line.material}`} className="underline-offset-4 hover:underline">
          {line.title}
        </Link>
        <Why label={`Why ${line.leap.words}?`} shown={`leap ${line.leap.words}`}>
          <LeapParts leap={line.leap} />
        </Why>
      </h3>
      <div className="grid gap-x-8 md:grid-cols-2">
        <div>
          <p>
            {line.enters.length > 0 ? (
              <>
                <strong>New in the book:</strong> {line.enters.join(", ")}.
              </>
            ) : (
              "Nothing in it is new in the book."
            )}
          </p>
          {line.again.length > 0 && (
            <p>
              <strong>Comes again:</strong> {line.again.join(", ")}.
            </p>
          )}
        </div>
        <Describe line={line} />
      </div>
    </section>
  );
}

/** The focus points and tags of a piece, to be changed. */
function Describe({ line }: { line: Schemas["BookLine"] }) {
  const [open, setOpen] = useState(false);
  const save = useDescribe(line.material, () => setOpen(false));
  const send = (form: FormData) =>
    save.mutate({
      title: line.title,
      composer: line.composer,
      focusPoints: list(form.get("focus"), "\n"),
      tags: list(form.get("tags"), ","),
    });
  if (!open)
    return (
      <div>
        <p>
          <strong>Focus points:</strong> {line.focusPoints.join("; ") || "none"}.
        </p>
        <p>
          <strong>It is</strong> {line.tags.join(", ") || "not described yet"}.
        </p>
        <button type="button" className="quiet -ml-2" onClick={() => setOpen(true)}>
          Change these
        </button>
      </div>
    );
  return (
    <form
      className="grid gap-2"
      onSubmit={(e: FormEvent<HTMLFormElement>) => {
        e.preventDefault();
        send(new FormData(e.currentTarget));
      }}
    >
      <Field label="Focus points, one a line">
        <textarea
          name="focus"
          rows={4}
          defaultValue={line.focusPoints.join("\n")}
          className="rounded-md border-[1.5px] border-soft bg-sheet px-3 py-2"
        />
      </Field>
      <Field label="What it is like, with commas (quiet, comic, fast and showy, lyrical, recognisable …)">
        <input name="tags" defaultValue={line.tags.join(", ")} autoComplete="off" />
      </Field>
      <div className="flex gap-2">
        <button type="submit" className="press press-main" disabled={save.isPending}>
          Save
        </button>
        <button type="button" className="press" onClick={() => setOpen(false)}>
          Leave it
        </button>
      </div>
      <Refused error={save.error} />
    </form>
  );
}

const list = (text: FormDataEntryValue | null, between: string) =>
  String(text ?? "")
    .split(between)
    .map((t) => t.trim())
    .filter(Boolean);
