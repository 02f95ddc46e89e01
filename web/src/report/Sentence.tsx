import { useState } from "react";
import type { Schemas } from "../contract/client";
import { Told } from "../progress/Told";

type Of = Schemas["ReportSentence"];

/** One sentence of a report: touched, it can be changed; what was changed says when the facts have become others. */
export function Sentence(props: {
  of: Of;
  ladder: string;
  busy: boolean;
  say: (text: string) => void;
  keep: () => void;
}) {
  const { of: s } = props;
  const [open, setOpen] = useState(false);
  const [text, setText] = useState(s.text);
  if (open)
    return (
      <li className="py-1.5">
        <textarea
          aria-label="The sentence"
          // biome-ignore lint/a11y/noAutofocus: it was asked for by a touch
          autoFocus
          rows={3}
          maxLength={600}
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="w-full rounded border-[1.5px] border-soft bg-paper px-3 py-2 text-[1.1rem] leading-snug"
        />
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="press press-main"
            onClick={() => {
              props.say(text);
              setOpen(false);
            }}
          >
            Save
          </button>
          <button
            type="button"
            className="quiet"
            onClick={() => {
              props.say("");
              setOpen(false);
            }}
          >
            Leave it out
          </button>
          {s.edited && (
            <button
              type="button"
              className="quiet"
              onClick={() => {
                props.say(s.drafted);
                setOpen(false);
              }}
            >
              As drafted
            </button>
          )}
          <button
            type="button"
            className="quiet"
            onClick={() => {
              setText(s.text);
              setOpen(false);
            }}
          >
            Cancel
          </button>
        </div>
      </li>
    );
  return (
    <li className="flex items-start gap-2 py-1.5">
      <p
        className={`min-w-0 flex-1 text-[1.15rem] leading-snug ${s.text === "" ? "text-soft line-through" : ""}`}
      >
        {s.text === "" ? (
          s.drafted
        ) : (
          <Told line={{ text: s.text, entries: s.entries }} ladder={props.ladder} />
        )}
        {s.newer && (
          <span className="fine mt-1 block border-l-4 border-focus pl-2 no-underline">
            The facts say now: {s.drafted || "nothing of it any more."}
            <span className="mt-0.5 flex flex-wrap gap-x-3">
              <button
                type="button"
                className="quiet -ml-2.5"
                disabled={props.busy}
                onClick={() => props.say(s.drafted)}
              >
                Use that
              </button>
              <button type="button" className="quiet" disabled={props.busy} onClick={props.keep}>
                Keep mine
              </button>
            </span>
          </span>
        )}
      </p>
      <button
        type="button"
        className="quiet no-print -my-1.5 shrink-0"
        onClick={() => {
          setText(s.text || s.drafted);
          setOpen(true);
        }}
      >
        Change<span className="sr-only">: {s.text || s.drafted}</span>
      </button>
    </li>
  );
}
