import { useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { Refused } from "../parts/Problem";
import { Sheet } from "../parts/Sheet";

/** A run from start to end: each point of the standard is met or not. */
export function RunSheet(props: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  piece: Schemas["LessonPiece"];
  standard: Schemas["StandardPoint"][];
  /** The level of the standard: the run remembers it. */
  level: Schemas["Lesson"]["level"];
  append: Append;
}) {
  return (
    <Sheet
      open={props.open}
      onOpenChange={props.onOpenChange}
      title={`Run: ${props.piece.title}`}
      says="From start to end. Tap whatever was missing; with nothing missing the piece is cleared."
    >
      <Form {...props} />
    </Sheet>
  );
}

function Form(props: Parameters<typeof RunSheet>[0]) {
  const { piece, standard, append } = props;
  // The entry is made with the sheet: recording it twice counts once.
  const [run] = useState(() => entry("run", { material: piece.material }));
  const [missed, setMissed] = useState<string[]>([]);
  const toggle = (id: string) => setMissed((m) => (m.includes(id) ? m.filter((x) => x !== id) : [...m, id]));
  const record = () =>
    append.mutate(
      [
        {
          ...run,
          standard: props.level,
          met: standard.map((p) => p.id).filter((id) => !missed.includes(id)),
        },
      ],
      {
        onSuccess: () => props.onOpenChange(false),
      },
    );
  return (
    <>
      <ul className="grid gap-2">
        {standard.map((p) => {
          const met = !missed.includes(p.id);
          return (
            <li key={p.id}>
              <button
                type="button"
                role="switch"
                aria-checked={met}
                onClick={() => toggle(p.id)}
                className={`flex min-h-14 w-full items-center gap-3 rounded-lg border-2 px-4 text-left ${met ? "border-good" : "border-dashed border-cliff"}`}
              >
                <svg
                  viewBox="0 0 20 20"
                  width="24"
                  height="24"
                  aria-hidden="true"
                  className={met ? "text-good" : "text-cliff"}
                >
                  <path
                    d={met ? "M3 10.5l5 5L17.5 4.5" : "M5 5l10 10M15 5L5 15"}
                    fill="none"
                    stroke="currentColor"
                    strokeWidth="3"
                    strokeLinecap="round"
                  />
                </svg>
                <span className="flex-1 font-semibold">{p.name}</span>
                <span className="fine">{met ? "met" : "not yet"}</span>
              </button>
            </li>
          );
        })}
      </ul>
      <div className="mt-4 grid gap-3">
        <Refused error={append.error} />
        <button type="button" className="press press-main" disabled={append.isPending} onClick={record}>
          {missed.length === 0 ? "It met the standard: clear it" : "Record the run: it stays"}
        </button>
      </div>
    </>
  );
}
