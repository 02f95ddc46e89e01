import type { Schemas } from "../contract/client";
import type { LaidRail } from "./layout";
import { plantMost, plantWidth, plantY } from "./PlantColumn";

/** Threads from what is planted to the rung that will need it; a late one is dashed and red. */
export function Threads(props: {
  view: Schemas["LadderView"];
  rails: LaidRail[];
  above: number;
  plant: number;
  rail: number;
  picked?: string;
}) {
  const { view, rails, above } = props;
  if (props.plant === 0) return null;
  return (
    <svg
      aria-hidden="true"
      className="pointer-events-none absolute inset-0"
      width={props.plant + props.rail * rails.length}
      height="100%"
    >
      {view.plantings.slice(0, plantMost).map((p, i) => {
        const k = rails.findIndex((r) => r.rungs.some((x) => x.rung.material === p.for));
        const to = rails[k]?.rungs.find((x) => x.rung.material === p.for);
        if (!to) return null;
        const x1 = plantWidth - 6;
        const y1 = above - plantY(i);
        const x2 = props.plant + k * props.rail + 14;
        const y2 = above - to.y;
        const bend = Math.max(24, (x2 - x1) / 2);
        const strong = props.picked === p.skill;
        return (
          <path
            key={p.skill}
            d={`M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}`}
            fill="none"
            stroke={p.late > 0 ? "var(--color-cliff)" : "var(--color-preview)"}
            strokeWidth={strong ? 3 : 1.4}
            strokeDasharray={p.late > 0 ? "7 4" : undefined}
            opacity={strong ? 1 : 0.5}
          />
        );
      })}
    </svg>
  );
}
