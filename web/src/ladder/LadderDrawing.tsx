import {
  DndContext,
  type DragMoveEvent,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../contract/client";
import { extent, lay, placeAt } from "./layout";
import { PlantColumn, plantWidth } from "./PlantColumn";
import { RailColumn } from "./RailColumn";
import { Threads } from "./Threads";
import { within, type Zoom, zooms } from "./zoom";

/** The least width of a rail in pixels. */
const railLeast = 176;

/** What the drawing is told and tells. */
export interface Hand {
  picked?: string;
  onPick: (material: string) => void;
  /** Moves a rung ahead by some places; below 0 is earlier. */
  onMove: (material: string, by: number) => void;
}

/** One tall sheet: rails side by side, rungs as strokes, the distance between two the size of the leap. */
export function LadderDrawing(
  props: Hand & {
    view: Schemas["LadderView"];
    zoom: Zoom;
    planting?: string;
    /** What the staircases of exercises propose. */
    proposed: Schemas["NextExercise"][];
    /** The rung for whose sake the ladder was opened. */
    asked?: string;
    onPlanting: (skill: string) => void;
  },
) {
  const { view, zoom, asked } = props;
  const parts = useMemo(() => within(view, zoom, asked), [view, zoom, asked]);
  const rails = useMemo(
    () =>
      lay(
        parts.map((p) => p.rail),
        zooms[zoom],
      ),
    [parts, zoom],
  );
  const { above, under } = extent(rails, props.proposed.length);
  const wanted = rails.flatMap((r) => r.rungs).find((x) => x.rung.material === asked)?.y;
  const { scroller, sight, width } = useSight(above, zoom, wanted);
  const [drag, setDrag] = useState<{ material: string; dy: number }>();
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
  );

  const plant = width > 700 && view.plantings.length > 0 ? plantWidth : 0;
  const rail = Math.max(railLeast, (width - plant) / Math.max(1, rails.length));
  const moved = (e: DragMoveEvent) => {
    const laid = rails.find((r) => r.rungs.some((x) => x.rung.material === e.active.id));
    const from = laid?.rungs.find((x) => x.rung.material === e.active.id);
    if (!laid || !from) return 0;
    const at = placeAt(laid, from.rung.material, from.y);
    return placeAt(laid, from.rung.material, from.y - e.delta.y) - at;
  };
  return (
    <DndContext
      sensors={sensors}
      onDragMove={(e) => setDrag({ material: String(e.active.id), dy: e.delta.y })}
      onDragCancel={() => setDrag(undefined)}
      onDragEnd={(e) => {
        setDrag(undefined);
        const by = moved(e);
        if (by) props.onMove(String(e.active.id), by);
      }}
    >
      <section
        ref={scroller}
        aria-label="Ladder"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
        tabIndex={0}
        className="min-w-0 flex-1 overflow-auto max-lg:max-h-[72dvh]"
      >
        <div className="relative" style={{ height: above + under, width: plant + rail * rails.length }}>
          <div
            aria-hidden="true"
            className="absolute inset-x-0 border-t-2 border-dashed border-working/50"
            style={{ top: above }}
          ></div>
          <Threads
            view={view}
            rails={rails}
            above={above}
            plant={plant}
            rail={rail}
            picked={props.planting}
          />
          {plant > 0 && (
            <PlantColumn view={view} above={above} picked={props.planting} onPick={props.onPlanting} />
          )}
          {rails.map((laid, k) => (
            <RailColumn
              key={laid.strand}
              rail={laid}
              part={parts[k]}
              above={above}
              left={plant + k * rail}
              width={rail}
              sight={sight}
              drag={drag}
              zoom={zoom}
              reach={view.rails.find((r) => r.strand === laid.strand)?.reach ?? view.reach}
              picked={props.picked}
              proposed={laid.strand === "technique" ? props.proposed : []}
              ladder={view.student.ladder}
              onPick={props.onPick}
              onMove={props.onMove}
            />
          ))}
        </div>
      </section>
    </DndContext>
  );
}

/**
 * What part of the drawing is in sight, with a margin; begins with the line of now a little below the middle, or
 * with a rung that was asked for in the middle, where it would lie outside.
 */
function useSight(above: number, zoom: Zoom, wanted = 0) {
  const scroller = useRef<HTMLElement>(null);
  const [sight, setSight] = useState({ from: 0, to: 3000 });
  const [width, setWidth] = useState(0);
  // Where it lies by now; that it moves alone is no reason to scroll.
  const aim = useRef(wanted);
  aim.current = wanted;
  useLayoutEffect(() => {
    const el = scroller.current;
    if (!el || !zoom) return;
    const y = aim.current;
    const outside = y > el.clientHeight * 0.55 || y < -el.clientHeight * 0.3;
    el.scrollTop = above - (outside ? y + el.clientHeight / 2 : el.clientHeight * 0.62);
  }, [above, zoom]);
  useEffect(() => {
    const el = scroller.current;
    if (!el) return;
    const look = () => {
      // In steps of a screen, so that scrolling draws anew only now and then.
      const step = Math.max(400, el.clientHeight);
      const at = Math.floor(el.scrollTop / step) * step;
      setSight((s) =>
        s.from === at - step && s.to === at + 3 * step ? s : { from: at - step, to: at + 3 * step },
      );
      setWidth(el.clientWidth);
    };
    look();
    el.addEventListener("scroll", look, { passive: true });
    const sized = new ResizeObserver(look);
    sized.observe(el);
    return () => {
      el.removeEventListener("scroll", look);
      sized.disconnect();
    };
  }, []);
  return { scroller, sight, width };
}
