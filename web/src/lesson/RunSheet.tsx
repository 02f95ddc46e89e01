import { useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { Refused } from "../parts/Problem";
import { Sheet } from "../parts/Sheet";

/** A run from start to end: of each point of the standard the teacher says whether it was met. Nothing is presumed. */
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
      says="From start to end. Say of each point whether it was met; when all were, the piece is cleared."
    >
      <Form {...props} />
    </Sheet>
  );
}

/** How a point of the standard was: nobody has said yet, met, or missed. */
type Answer = "met" | "missed";

function Form(props: Parameters<typeof RunSheet>[0]) {
  const { piece, standard, append } = props;
  // The entry is made with the sheet: recording it twice counts once.
  const [run] = useState(() => entry("run", { material: piece.material }));
  const [answers, setAnswers] = useState<Record<string, Answer>>({});
  const [held, setHeld] = useState(false);
  const answer = (id: string, a: Answer) => setAnswers((all) => ({ ...all, [id]: a }));
  const left = standard.filter((p) => !answers[p.id]).length;
  const met = standard.filter((p) => answers[p.id] === "met").map((p) => p.id);
  const all = left === 0 && met.length === standard.length;
  // A spot that is marked as hard and not mended speaks against a run in which nothing was missed.
  const hard = piece.spots.filter((s) => !s.mended);
  const doubt = all && hard.length > 0 && !held;
  const record = () =>
    append.mutate([{ ...run, standard: props.level, met }], { onSuccess: () => props.onOpenChange(false) });
  return (
    <>
      <ul className="grid gap-2">
        {standard.map((p) => (
          <li key={p.id} className="rounded-lg border-2 border-line px-3 py-2">
            <fieldset className="flex flex-wrap items-center gap-x-3 gap-y-1">
              <legend className="float-left flex-1 font-semibold">{p.name}</legend>
              <span className="ml-auto flex gap-2">
                <Choice is={answers[p.id]} of="met" name={p.name} onPick={(a) => answer(p.id, a)} />
                <Choice is={answers[p.id]} of="missed" name={p.name} onPick={(a) => answer(p.id, a)} />
              </span>
            </fieldset>
          </li>
        ))}
      </ul>
      <div className="mt-4 grid gap-3">
        {left > 0 && (
          <button
            type="button"
            className="press"
            onClick={() => setAnswers(Object.fromEntries(standard.map((p) => [p.id, "met" as const])))}
          >
            {allMet(standard.length)}
          </button>
        )}
        {doubt && (
          <div role="alert" className="border-l-4 border-cliff bg-fold px-3 py-2">
            <p>
              {hard.map((s) => s.where).join(", ")} {hard.length === 1 ? "is" : "are"} still marked as hard.
              Did {hard.length === 1 ? "it" : "they"} hold this time?
            </p>
            <button type="button" className="quiet -ml-2.5" onClick={() => setHeld(true)}>
              {hard.length === 1 ? "It held" : "They held"}
            </button>
          </div>
        )}
        <Refused error={append.error} />
        <button
          type="button"
          className="press press-main"
          disabled={append.isPending || left > 0 || doubt}
          onClick={record}
        >
          {left > 0
            ? `${left} still to answer`
            : all
              ? "It met the standard: clear it"
              : "Record the run: it stays"}
        </button>
      </div>
    </>
  );
}

const numbers = ["", "", "", "three", "four", "five", "six", "seven"];

const allMet = (n: number) =>
  n === 1 ? "It was met" : n === 2 ? "Both were met" : `All ${numbers[n] ?? n} were met`;

/** One of the two answers to a point, as large as a busy hand needs it. */
function Choice(props: { is: Answer | undefined; of: Answer; name: string; onPick: (a: Answer) => void }) {
  const on = props.is === props.of;
  const good = props.of === "met";
  const frame = on ? (good ? "border-good text-good" : "border-cliff text-cliff") : "border-line";
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-label={`${props.name}: ${props.of}`}
      onClick={() => props.onPick(props.of)}
      className={`flex min-h-touch items-center gap-1.5 rounded-full border-2 px-4 aria-pressed:bg-reach aria-pressed:font-semibold ${frame} ${good ? "" : "border-dashed"}`}
    >
      <svg viewBox="0 0 20 20" width="16" height="16" aria-hidden="true">
        <path
          d={good ? "M3 10.5l5 5L17.5 4.5" : "M5 5l10 10M15 5L5 15"}
          fill="none"
          stroke="currentColor"
          strokeWidth="3"
          strokeLinecap="round"
        />
      </svg>
      {props.of}
    </button>
  );
}
