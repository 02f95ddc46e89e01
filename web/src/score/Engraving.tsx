import { useEffect, useRef, useState } from "react";
import { Problem } from "../parts/Problem";
import { engrave, type Places } from "./engraver";

/** Engraves a score into an element and again when the width or the look changes. */
export function useEngraving(xml: string | undefined, room = 9, fingers = false) {
  const holder = useRef<HTMLDivElement>(null);
  const [places, setPlaces] = useState<Places>();
  const [failed, setFailed] = useState<Error>();
  const [drawn, setDrawn] = useState(0);
  useEffect(() => {
    const el = holder.current;
    if (!el) return;
    let width = el.clientWidth;
    const redraw = () => setDrawn((n) => n + 1);
    const watch = new ResizeObserver(() => {
      if (Math.abs(el.clientWidth - width) < 4) return;
      width = el.clientWidth;
      redraw();
    });
    watch.observe(el);
    window.addEventListener("look", redraw);
    return () => {
      watch.disconnect();
      window.removeEventListener("look", redraw);
    };
  }, []);
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn asks for a new drawing
  useEffect(() => {
    const el = holder.current;
    if (!el || !xml) return;
    let current = true;
    const ink = getComputedStyle(document.documentElement).getPropertyValue("--color-ink").trim();
    engrave(el, xml, { ink, zoom: el.clientWidth < 600 ? 0.8 : 1.3, room, fingers })
      .then((result) => {
        if (current) {
          setPlaces(result.places);
          setFailed(undefined);
        }
      })
      .catch(() => {
        if (current)
          setFailed(
            new Error(
              "The score was read, but it cannot be drawn here. The facts beside it hold all the same.",
            ),
          );
      });
    return () => {
      current = false;
    };
  }, [xml, room, fingers, drawn]);
  return { holder, places, failed };
}

/** A score without marks, with its fingers where they are asked for. */
export function Engraving({ xml, fingers }: { xml: string; fingers?: boolean }) {
  const { holder, failed } = useEngraving(xml, 5, fingers);
  return (
    <>
      {failed && <Problem error={failed} />}
      <div ref={holder} data-testid="engraving" aria-hidden="true" />
    </>
  );
}
