import { type FormEvent, useState } from "react";
import type { Schemas } from "../contract/client";
import { useGiveStudent } from "../data/account";
import { Refused } from "../parts/Problem";
import { Sheet } from "../parts/Sheet";

/** Whose student it is; handed over to a colleague for good, or for a lesson on one day. */
export function Colleague({ of: l, page }: { of: Schemas["StudentLadder"]; page: Schemas["StudentPage"] }) {
  const [open, setOpen] = useState(false);
  const give = useGiveStudent(l.ladder);
  if (page.colleagues.length === 0) return null;
  const name = page.colleagues.find((c) => c.id === l.teacher)?.name;
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const day = String(f.get("day"));
    give.mutate(
      { teacher: String(f.get("teacher")), ...(f.get("how") === "day" && { day }) },
      { onSuccess: () => setOpen(false) },
    );
  };
  return (
    <div className="mt-1">
      <p>
        <span className="fine">{name ? `taught by ${name}` : "taught by the owner"}</span>
        <button type="button" className="quiet" onClick={() => setOpen(true)}>
          Hand over or cover
        </button>
      </p>
      {l.covers.map((c) => (
        <p key={c.id} className="fine">
          {c.name}
          <button
            type="button"
            className="quiet"
            disabled={give.isPending}
            onClick={() => give.mutate({ teacher: "", day: c.id })}
          >
            Not any more
          </button>
        </p>
      ))}
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Who teaches ${page.first}?`}
        says="Whoever covers a lesson sees the student on that day only."
      >
        <form onSubmit={send} className="grid gap-3">
          <select name="teacher" aria-label="Colleague" defaultValue={l.teacher}>
            <option value="">the owner</option>
            {page.colleagues.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </select>
          <fieldset className="m-0 grid gap-2 border-0 p-0">
            <legend className="sr-only">For how long</legend>
            <label className="flex min-h-touch items-center gap-2">
              <input type="radio" name="how" value="good" defaultChecked /> for good
            </label>
            <label className="flex min-h-touch items-center gap-2">
              <input type="radio" name="how" value="day" /> only on
              <input type="date" name="day" aria-label="Day" defaultValue={page.today} min={page.today} />
            </label>
          </fieldset>
          <Refused error={give.error} />
          <button type="submit" className="press press-main" disabled={give.isPending}>
            Keep it
          </button>
        </form>
      </Sheet>
    </div>
  );
}
