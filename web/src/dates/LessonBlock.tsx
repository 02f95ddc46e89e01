import { useDraggable } from "@dnd-kit/core";
import type { CSSProperties } from "react";
import type { Schemas } from "../contract/client";

type Lesson = Schemas["LessonDate"];

const tones: Record<Lesson["state"], string> = {
  planned: "border-working bg-sheet",
  moved: "border-working border-dashed bg-sheet",
  added: "border-preview bg-sheet",
  cancelled: "border-line bg-paper text-soft line-through",
  break: "border-line bg-paper text-soft",
};

/** What became of a lesson is a word, and a sign where there is no room for one. */
const became: Partial<Record<NonNullable<Lesson["became"]>, { word: string; sign: string; look: string }>> = {
  taught: { word: "given", sign: "✓", look: "text-good" },
  notEntered: { word: "not entered yet", sign: "?", look: "text-cliff font-semibold" },
  missed: { word: "did not take place", sign: "–", look: "" },
};

/** One lesson in the calendar; it can be dragged, and opens when it is pressed. */
export function LessonBlock(props: {
  lesson: Lesson;
  style?: CSSProperties;
  className?: string;
  onOpen: () => void;
  small?: boolean;
  /** Too low for a second line: the time stands before the name */
  low?: boolean;
}) {
  const { lesson: l } = props;
  const fixed = l.state === "cancelled";
  const was = l.became && became[l.became];
  const { setNodeRef, listeners, attributes, transform, isDragging } = useDraggable({
    id: `${l.ladder} ${l.lesson}`,
    disabled: fixed,
    data: l,
  });
  const moved = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 } : {};
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...listeners}
      {...attributes}
      aria-roledescription="lesson"
      onClick={props.onOpen}
      style={{ ...props.style, ...moved, touchAction: "manipulation" }}
      className={`overflow-hidden rounded border-l-4 px-1.5 text-left leading-tight shadow-sm hover:bg-fold ${tones[l.state]} ${isDragging ? "opacity-80" : ""} ${l.clashes.length > 0 ? "outline-2 -outline-offset-2 outline-cliff" : ""} ${props.className ?? ""}`}
    >
      <span className={`block truncate ${props.small ? "text-fine" : "text-[0.9rem] font-semibold"}`}>
        {(props.small || props.low) && <span className="figures font-normal">{l.startsAt} </span>}
        {was && (props.small || props.low) && (
          <span className={was.look}>
            <span aria-hidden="true">{was.sign} </span>
            <span className="sr-only">{was.word}, </span>
          </span>
        )}
        {l.name}
      </span>
      {!props.small && !props.low && (
        <span className="figures fine block truncate no-underline">
          {l.startsAt}
          {was && <span className={was.look}> · {was.word}</span>}
          {(l.words || !was) && ` · ${l.words || l.instrument}`}
        </span>
      )}
      {(props.small || props.low) && l.words && <span className="sr-only">, {l.words}</span>}
    </button>
  );
}
