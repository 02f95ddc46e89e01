import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Entry } from "../data/outbox";

type Point = Schemas["FocusPoint"];

/** What a mark writes: in one lesson a point has one, and another takes the place of the first. */
export const marked = (piece: Schemas["LessonPiece"], point: Point, mark: Schemas["Mark"]): Entry[] => [
  ...(point.marked ? [entry("correction", { corrects: point.marked })] : []),
  entry("mark", { material: piece.material, focus: point.id, mark }),
];

/** The point that comes after a mark: the next one without a mark in this lesson, from the first again; else the same. */
export function nextPoint(points: Point[], at: number): number {
  for (let k = 1; k < points.length; k++) {
    const i = (at + k) % points.length;
    if (!points[i]?.marked) return i;
  }
  return at;
}
