import { useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { MarkGlyph } from "../parts/MarkGlyph";

/** The bars of the piece as a strip: touch the first and the last bar of a hard spot. */
export function SpotStrip(props: {
  piece: Schemas["LessonPiece"];
  append: Append;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  const { piece, append } = props;
  const [from, setFrom] = useState<number>();
  const openSpots = piece.spots.filter((s) => !s.mended);
  const inSpot = (bar: number) => openSpots.some((s) => s.from <= bar && bar <= s.to);
  const touch = (bar: number) => {
    if (from === undefined) {
      setFrom(bar);
      return;
    }
    append.mutate([
      entry("spotAdded", { material: piece.material, from: Math.min(from, bar), to: Math.max(from, bar) }),
    ]);
    setFrom(undefined);
    props.onOpen(false);
  };
  if (piece.bars === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-3" aria-label="Spots">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h3>Spots</h3>
        {piece.spotsMark && (
          <span className="fine inline-flex items-center gap-1.5 text-working">
            <MarkGlyph mark={piece.spotsMark} size={17} /> together one more point
          </span>
        )}
        <button
          type="button"
          className="quiet"
          aria-expanded={props.open}
          onClick={() => {
            setFrom(undefined);
            props.onOpen(!props.open);
          }}
        >
          {props.open ? "Never mind" : "Mark a hard spot"} <kbd>H</kbd>
        </button>
        {openSpots.map((s) => (
          <span key={s.id} className="inline-flex items-center gap-1 rounded-full border-2 border-focus pl-3">
            {s.where}
            <button
              type="button"
              className="quiet"
              disabled={append.isPending}
              onClick={() => append.mutate([entry("spotMended", { material: piece.material, spot: s.id })])}
            >
              Mended
            </button>
          </span>
        ))}
      </div>
      {props.open && (
        <>
          <p className="fine mt-1" role="status">
            {from === undefined
              ? "Tap the first bar of the spot."
              : `From bar ${piece.barLabels[from - 1]}: now tap the last bar, or the same one again.`}
          </p>
          <div className="mt-2 flex flex-wrap gap-1.5">
            {piece.barLabels.map((label, i) => (
              <button
                // biome-ignore lint/suspicious/noArrayIndexKey: bars are known by their position
                key={i}
                type="button"
                aria-label={`Bar ${label}`}
                aria-pressed={from === i + 1}
                onClick={() => touch(i + 1)}
                className={`figures h-12 w-12 rounded border-2 hover:bg-fold aria-pressed:bg-focus aria-pressed:text-paper ${inSpot(i + 1) ? "border-focus font-semibold" : "border-line"}`}
              >
                {label}
              </button>
            ))}
          </div>
        </>
      )}
    </section>
  );
}
