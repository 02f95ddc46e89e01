import { type FormEvent, useState } from "react";
import { useRemoveBook, useRenameBook } from "../data/shelve";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";
import { Requirements } from "./Requirements";

/** A book gets another title, is removed, or retired where somebody has a piece of it. */
export function BookTools(props: { id: string; title: string; retired?: boolean }) {
  const [open, setOpen] = useState(false);
  const rename = useRenameBook(props.id, () => setOpen(false));
  const remove = useRemoveBook(props.id);
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    rename.mutate(String(new FormData(e.currentTarget).get("title")));
  };
  return (
    <div className="flex flex-wrap items-center">
      <button type="button" className="quiet" onClick={() => setOpen(true)}>
        Rename the book
      </button>
      <Requirements book={props.id} />
      <button
        type="button"
        className="quiet"
        disabled={remove.isPending}
        onClick={() => remove.mutate(props.retired ?? false)}
      >
        {props.retired ? "Offer the book again" : "Remove the book"}
      </button>
      <span role="status" className="fine">
        {remove.data?.words ?? (props.retired ? "Not offered any more." : "")}
      </span>
      <Refused error={remove.error} />
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title="Rename the book"
        says="Its pieces and their places stay."
      >
        <form onSubmit={send} className="grid gap-3">
          <Field label="Title">
            <input name="title" required maxLength={200} defaultValue={props.title} />
          </Field>
          <Refused error={rename.error} />
          <button type="submit" className="press press-main" disabled={rename.isPending}>
            Rename it
          </button>
        </form>
      </Sheet>
    </div>
  );
}
