import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { markNames } from "../data/words";
import { MarkGlyph } from "../parts/MarkGlyph";
import { GateChoice } from "../week/Gates";
import { Faults } from "./Faults";

const marks: Schemas["Mark"][] = ["none", "part", "full"];

/** An exercise that is being worked at: its step, its goals with their marks, and the faults that were seen. */
export function NowCard(props: {
  now: Schemas["TechniqueNow"];
  shown: boolean;
  /** How often at home. */
  dose: string;
  open: (exercise: string) => void;
  append: Append;
}) {
  const { now, append } = props;
  const mark = (focus: string, value: Schemas["Mark"]) =>
    append.mutate([entry("mark", { material: now.material, focus, mark: value })]);
  return (
    <article
      aria-label={`${now.title}: ${now.step}`}
      className={`mb-3 rounded-lg border bg-sheet p-4 ${props.shown ? "border-working" : "border-line"}`}
    >
      <button
        type="button"
        className="block w-full text-left leading-tight"
        onClick={() => props.open(now.exercise)}
      >
        <span className="block font-head text-xl font-semibold">{now.title}</span>
        <span className="block">{now.step}</span>
      </button>
      {props.shown && (
        <>
          <ul className="mt-2" aria-label="Goals">
            {now.goals.map((g) => (
              <li
                key={g.id}
                className="flex items-center justify-between gap-2 border-t border-line/60 py-1 leading-tight"
              >
                <span>{g.text}</span>
                <span className="flex shrink-0">
                  {marks.map((m) => (
                    <button
                      key={m}
                      type="button"
                      aria-pressed={g.mark === m}
                      aria-label={`${g.text}: ${markNames[m]}`}
                      className="flex min-h-touch w-10 items-center justify-center rounded text-ahead aria-pressed:bg-reach aria-pressed:text-working"
                      onClick={() => mark(g.id, m)}
                    >
                      <MarkGlyph mark={m} size={24} />
                    </button>
                  ))}
                </span>
              </li>
            ))}
          </ul>
          <Faults faults={now.faults} mark={mark} />
          <p className="mt-3 leading-tight">{now.why}</p>
          <div className="mt-2 flex flex-wrap items-center gap-2">
            <button
              type="button"
              className={`press ${now.runDue ? "press-main" : ""}`}
              onClick={() => append.mutate([entry("cleared", { material: now.material })])}
            >
              Mark as passed
            </button>
            <span className="fine">at home</span>
            <GateChoice material={now.material} title={now.title} gate={now.gate} append={append} />
          </div>
          <p className="fine mt-1">
            {props.dose}{" "}
            <Link to="/settings" className="underline underline-offset-4">
              change how much
            </Link>
          </p>
          {now.hand && (
            <p className="fine mt-1">
              At home the {now.hand} only; the week’s sheet shows the rest under “not yet”.
            </p>
          )}
        </>
      )}
    </article>
  );
}
