import { type ChangeEvent, useRef, useState } from "react";
import { useImportHolidays } from "../data/dates";
import { longDay } from "../data/words";
import { Refused } from "../parts/Problem";

/** The most that a calendar file may have; a year of a school has some kilobytes. */
const mostBytes = 2 * 1024 * 1024;

/** Days without lessons out of a calendar file: what was found is read before it is added. */
export function HolidaysFromFile() {
  const [file, setFile] = useState<{ name: string; text: string }>();
  const [problem, setProblem] = useState<Error | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const look = useImportHolidays();
  const keep = useImportHolidays();
  const choose = async (e: ChangeEvent<HTMLInputElement>) => {
    const chosen = e.currentTarget.files?.[0];
    e.currentTarget.value = "";
    if (!chosen) return;
    look.reset();
    keep.reset();
    setFile(undefined);
    setProblem(null);
    if (chosen.size > mostBytes) {
      setProblem(
        new Error(
          `“${chosen.name}” is larger than 2 MB, which no calendar of holidays is. Nothing was changed.`,
        ),
      );
      return;
    }
    const text = await chosen.text();
    setFile({ name: chosen.name, text });
    look.mutate({ text, keep: false });
  };
  const leave = () => {
    setFile(undefined);
    look.reset();
    keep.reset();
  };
  const found = look.data;
  return (
    <div className="mt-4">
      <input
        ref={chooser}
        type="file"
        accept=".ics,text/calendar"
        aria-label="A calendar file"
        className="sr-only"
        tabIndex={-1}
        onChange={choose}
      />
      <button
        type="button"
        className="press"
        disabled={look.isPending || keep.isPending}
        onClick={() => chooser.current?.click()}
      >
        From a calendar file (.ics)
      </button>
      <Refused error={problem ?? look.error ?? keep.error} />
      {keep.data && (
        <p role="status" className="mt-2">
          {keep.data.sentence}
        </p>
      )}
      {file && found && !keep.data && (
        <section aria-label="What the file holds" className="mt-3 border-l-4 border-preview pl-4">
          <p>
            “{file.name}”: {found.sentence}
          </p>
          <ul className="mt-1">
            {found.holidays.map((h) => (
              <li key={h.id} className="py-0.5">
                {h.name}
                <span className="fine block">
                  {longDay(h.first)} – {longDay(h.last)}
                </span>
              </li>
            ))}
          </ul>
          {found.skipped.length > 0 && (
            <details>
              <summary className="fine min-h-touch cursor-pointer py-2.5">What is not taken, and why</summary>
              <ul className="fine max-h-48 overflow-y-auto">
                {found.skipped.map((s, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: lines in their own order
                  <li key={i}>{s}</li>
                ))}
              </ul>
            </details>
          )}
          <div className="mt-2 flex flex-wrap gap-2">
            {found.holidays.length > 0 && (
              <button
                type="button"
                className="press press-main"
                disabled={keep.isPending}
                onClick={() => keep.mutate({ text: file.text, keep: true })}
              >
                {found.holidays.length === 1 ? "Add it" : `Add all ${found.holidays.length}`}
              </button>
            )}
            <button type="button" className="press" onClick={leave}>
              Leave it
            </button>
          </div>
        </section>
      )}
    </div>
  );
}
