import type { Schemas } from "../contract/client";

type Layer = Schemas["Rung"]["layer"];

const names: Record<Layer, string> = {
  working: "working piece",
  preview: "ahead, being prepared",
  review: "in review",
  ahead: "ahead",
};

const colours: Record<Layer, string> = {
  working: "text-working",
  preview: "text-preview",
  review: "text-review",
  ahead: "text-ahead",
};

/** The shape of a layer: working solid, preview hollow, review ticked, ahead a bare rung. */
export function LayerMark({ layer, size = 18 }: { layer: Layer; size?: number }) {
  return (
    <svg viewBox="0 0 20 20" width={size} height={size} role="img" className={`${colours[layer]} shrink-0`}>
      <title>{names[layer]}</title>
      {layer === "working" && <circle cx="10" cy="10" r="8" fill="currentColor" />}
      {layer === "preview" && (
        <circle cx="10" cy="10" r="7" fill="none" stroke="currentColor" strokeWidth="2.4" />
      )}
      {layer === "review" && (
        <path
          d="M3 10.5l5 5L17.5 4.5"
          fill="none"
          stroke="currentColor"
          strokeWidth="3"
          strokeLinecap="round"
        />
      )}
      {layer === "ahead" && (
        <path d="M3 10h14" stroke="currentColor" strokeWidth="2.4" strokeLinecap="round" />
      )}
    </svg>
  );
}
