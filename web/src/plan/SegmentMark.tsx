import type { Schemas } from "../contract/client";
import { LayerMark } from "../parts/LayerMark";

/** The shape of a segment's layer; what frames the lesson has a bracket. */
export function SegmentMark({ layer, size = 18 }: { layer: Schemas["PlanSegment"]["layer"]; size?: number }) {
  if (layer !== "frame") return <LayerMark layer={layer} size={size} />;
  return (
    <svg viewBox="0 0 20 20" width={size} height={size} role="img" className="shrink-0 text-soft">
      <title>frame of the lesson</title>
      <path d="M8 3H4v14h4M12 3h4v14h-4" fill="none" stroke="currentColor" strokeWidth="2.2" />
    </svg>
  );
}
