import { useDraggable } from "@dnd-kit/core";
import type { KeyboardEvent } from "react";
import type { Schemas } from "../contract/client";
import { LayerMark } from "../parts/LayerMark";
import { freshness, isAhead, type Laid } from "./layout";

const strokes: Record<Schemas["Rung"]["layer"], string> = {
  working: "h-[9px] rounded-sm bg-working",
  preview: "h-[9px] rounded-sm border-[2.5px] border-preview bg-paper",
  review: "h-[5px] rounded-sm bg-review",
  ahead: "h-[3px] rounded-sm bg-ahead",
};

/** A rung: its stroke and mark by layer, title, expected date, leap. Ahead it can be dragged, or moved with Alt and the arrows. */
export function RungStroke(props: {
  laid: Laid;
  top: number;
  dates: boolean;
  dy?: number;
  picked: boolean;
  onPick: (material: string) => void;
  onMove: (material: string, by: number) => void;
}) {
  const { rung } = props.laid;
  const ahead = isAhead(rung);
  const { listeners, setNodeRef } = useDraggable({ id: rung.material, disabled: !ahead });
  const opacity = rung.layer === "review" ? freshness(rung.recall) : rung.aside ? 0.6 : 1;
  const keys = (e: KeyboardEvent) => {
    if (!ahead || !e.altKey || (e.key !== "ArrowUp" && e.key !== "ArrowDown")) return;
    e.preventDefault();
    props.onMove(rung.material, e.key === "ArrowUp" ? 1 : -1);
  };
  return (
    <li
      className={`absolute inset-x-0 ${props.dy === undefined ? "" : "z-20"}`}
      style={{ top: props.top - 17 + (props.dy ?? 0) }}
    >
      <button
        type="button"
        ref={setNodeRef}
        {...listeners}
        aria-pressed={props.picked}
        aria-keyshortcuts={ahead ? "Alt+ArrowUp Alt+ArrowDown" : undefined}
        onClick={() => props.onPick(rung.material)}
        onKeyDown={keys}
        className={`group ml-2 flex h-[34px] w-[calc(100%-0.5rem)] items-center gap-2 rounded pr-1 text-left hover:bg-fold aria-pressed:bg-fold ${rung.layer === "working" ? "bg-paper font-semibold" : ""} ${ahead ? "cursor-grab touch-pan-x touch-pan-y" : ""} ${props.dy === undefined ? "" : "bg-fold shadow-lg"}`}
      >
        <span
          aria-hidden="true"
          className={`ml-1 w-9 shrink-0 ${rung.aside || (ahead && rung.leap.unknown) ? "h-[3px] border-t-[3px] border-dotted border-ahead" : strokes[rung.layer]}`}
          style={{ opacity }}
        />
        <span className="min-w-0 flex-1 leading-[1.08]" style={{ opacity: 0.4 + 0.6 * opacity }}>
          <span className="flex items-center gap-1">
            {rung.runDue ? (
              <RunDue />
            ) : (
              (rung.layer === "working" || rung.layer === "review") && (
                <LayerMark layer={rung.layer} size={11} />
              )
            )}
            <span
              className={`line-clamp-1 text-[0.92rem] ${rung.aside === "skipped" ? "line-through" : ""}`}
              title={rung.title}
            >
              {props.laid.name === rung.title ? (
                rung.title
              ) : (
                <>
                  <span aria-hidden="true">{props.laid.name}</span>
                  <span className="sr-only">{rung.title}</span>
                </>
              )}
            </span>
          </span>
          {props.dates && (
            <span className="fine figures flex gap-1.5 font-normal">
              <Size laid={props.laid} />
              <span className="line-clamp-1">{expected(rung)}</span>
            </span>
          )}
        </span>
        {!props.dates && <Size laid={props.laid} />}
      </button>
    </li>
  );
}

function Size({ laid: { rung, below } }: { laid: Laid }) {
  if (below === 0 && rung.layer === "review") return null;
  return (
    <span className={`figures text-fine ${rung.cliff ? "font-semibold text-cliff" : "text-soft"}`}>
      <span className="sr-only">
        {rung.leap.unknown ? "leap not known " : rung.cliff ? "a big jump, " : "leap "}
      </span>
      {rung.leap.unknown ? "?" : rung.leap.words}
    </span>
  );
}

/** When it is expected to be cleared, or why it is not. */
function expected(rung: Schemas["Rung"]): string {
  if (rung.aside === "skipped") return "skipped";
  if (rung.aside === "paused") return rung.layer === "working" ? "resting" : "put off";
  if (rung.long) return `long: ${rung.clears?.words ?? ""}`;
  if (rung.layer === "review" && rung.recall !== undefined) return `${Math.round(100 * rung.recall)} % sure`;
  return rung.clears?.words ?? "";
}

/** Stands in for the mark of a working rung that is ready for a run, as on Today. */
function RunDue() {
  return (
    <svg viewBox="0 0 20 20" width="14" height="14" className="shrink-0 text-working" role="img">
      <title>working piece, run due</title>
      <path d="M4 16L10 4l6 12z" fill="currentColor" />
    </svg>
  );
}
