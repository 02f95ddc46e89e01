import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../contract/client";
import { scoreQuery } from "../data/queries";
import { Problem, Waiting } from "../parts/Problem";
import { engrave, type Places } from "./engraver";
import { Marks, type Overlays } from "./Marks";

/** The engraved score with the teacher's pencil laid over it. */
export function ScoreSheet({ piece, overlays }: { piece: Schemas["Piece"]; overlays: Overlays }) {
  const score = useQuery(scoreQuery(piece.material.id));
  const holder = useRef<HTMLDivElement>(null);
  const [places, setPlaces] = useState<Places>();
  const [failed, setFailed] = useState<Error>();
  const [drawn, setDrawn] = useState(0); // grows when the width or the look changes
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
    if (!el || !score.data) return;
    let current = true;
    const ink = getComputedStyle(document.documentElement).getPropertyValue("--color-ink").trim();
    engrave(el, score.data, { ink, zoom: el.clientWidth < 600 ? 0.85 : 1.45 })
      .then((result) => {
        if (current) setPlaces(result.places);
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
  }, [score.data, drawn]);
  if (score.error) return <Problem error={score.error} again={() => score.refetch()} />;
  return (
    <div
      className="relative"
      role="img"
      aria-label={`The score of ${piece.material.title}. ${piece.sentence}`}
    >
      {!places && !failed && <Waiting />}
      {failed && <Problem error={failed} />}
      {places && <Marks piece={piece} places={places} overlays={overlays} />}
      <div ref={holder} aria-hidden="true" />
    </div>
  );
}
