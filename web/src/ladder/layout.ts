import type { Schemas } from "../contract/client";

type Rung = Schemas["Rung"];

/** Pixels for a leap of one, and the least distance at which two titles can be read. */
export interface Scale {
  perLeap: number;
  least: number;
}

/** The drawn distance of a leap: a floor for reading, then in proportion. */
export const gap = (leap: number, scale: Scale) => scale.least + scale.perLeap * leap;

export interface Laid {
  rung: Rung;
  /** The title, or what tells it apart from others on the rail. */
  name: string;
  /** Pixels above (positive) or below the line of now. */
  y: number;
  /** The distance to the rung beneath; 0 for the lowest. */
  below: number;
}

export interface LaidRail {
  strand: Schemas["Strand"];
  rungs: Laid[];
  /** Where the comfortable reach begins: the highest rung begun. */
  foot: number;
}

/**
 * Lays the rails out around one line: the lowest working rung of a rail lies
 * on it, what is ahead above, what is in review below. A rail with nothing in
 * work has the line between its last learned and its next rung.
 */
export function lay(rails: Schemas["Rail"][], scale: Scale): LaidRail[] {
  return rails.map((rail) => {
    const firstWorking = rail.rungs.findIndex((r) => r.layer === "working");
    const firstAhead = rail.rungs.findIndex((r) => r.layer === "ahead" || r.layer === "preview");
    const zero = firstWorking >= 0 ? firstWorking : firstAhead >= 0 ? firstAhead : rail.rungs.length;
    const heights: number[] = [];
    let y = 0;
    rail.rungs.forEach((r, i) => {
      if (i > 0) y += gap(r.leap.size, scale);
      heights.push(y);
    });
    const shift =
      firstWorking >= 0
        ? (heights[zero] ?? 0)
        : zero < rail.rungs.length
          ? (heights[zero] ?? 0) - gap(rail.rungs[zero]?.leap.size ?? 0, scale) / 2
          : y + scale.least;
    // Exercises are told apart by how they begin: by their key.
    const pieces = shortNames(rail.rungs.map((r) => (r.exercise ? "" : r.title)));
    const exercises = shortExercises(rail.rungs.map((r) => (r.exercise ? r.title : "")));
    const rungs = rail.rungs.map((rung, i) => ({
      rung,
      name: pieces[i] || exercises[i] || rung.title,
      y: (heights[i] ?? 0) - shift,
      below: i > 0 ? gap(rung.leap.size, scale) : 0,
    }));
    const begun = rungs.filter((r) => r.rung.layer === "working" || r.rung.layer === "review");
    return { strand: rail.strand, rungs, foot: begun.at(-1)?.y ?? (rungs[0]?.y ?? 0) - scale.least };
  });
}

/** How far the whole drawing reaches above and below the line of now. */
export function extent(rails: LaidRail[], proposed = 0): { above: number; under: number } {
  let above = 60;
  let under = 60;
  for (const rail of rails) {
    if (rail.strand === "technique") above = Math.max(above, proposedY(rail, proposed - 1));
    for (const r of rail.rungs) {
      above = Math.max(above, r.y);
      under = Math.max(under, -r.y);
    }
  }
  return { above: above + 64, under: under + 48 };
}

/** Where an exercise that the staircases propose stands over the highest rung of its rail, from 0. */
export const proposedY = (rail: LaidRail, i: number): number => (rail.rungs.at(-1)?.y ?? 0) + 44 * (i + 1);

/** How faded a review piece is drawn: 1 when it is sure, down to 0.62 when it is half forgotten. */
export function freshness(recall: number | undefined): number {
  return 0.62 + 0.38 * Math.min(1, Math.max(0, 2 * (recall ?? 0) - 1));
}

/** The rungs of a laid rail that lie within a stretch of the drawing, measured from its top. */
export const inSight = (rail: LaidRail, above: number, from: number, to: number): Laid[] =>
  rail.rungs.filter((r) => above - r.y >= from && above - r.y <= to);

/** Where a rung that is dragged to a height would stand among those ahead on its rail, from 0. */
export function placeAt(rail: LaidRail, material: string, y: number): number {
  return rail.rungs.filter((r) => isAhead(r.rung) && r.rung.material !== material && r.y < y).length;
}

export const isAhead = (r: Rung) => r.layer === "ahead" || r.layer === "preview";

/**
 * Short names for the rungs of a rail: of long titles that begin alike, up to
 * their first comma or colon, what tells them apart.
 */
export function shortNames(titles: string[], room = 17): string[] {
  const beginning = (title: string) => /^[^,:]{3,}[,:] +/.exec(title)?.[0];
  const seen = new Map<string, number>();
  for (const t of titles) {
    const b = beginning(t);
    if (b) seen.set(b, (seen.get(b) ?? 0) + 1);
  }
  return titles.map((t) => {
    const b = beginning(t);
    return b && t.length > room && (seen.get(b) ?? 0) > 1 ? `… ${t.slice(b.length)}` : t;
  });
}

/**
 * Short names for the exercises of a rail: of those in the same key, the key
 * and what tells them apart, so that two are never cut to the same words.
 */
export function shortExercises(titles: string[]): string[] {
  const key = (title: string) => /^\S+ (?:major|minor)\b/.exec(title)?.[0] ?? "";
  return titles.map((title) => {
    const k = key(title);
    const alike = titles.filter((t) => k && key(t) === k && t !== title);
    if (alike.length === 0) return title;
    const words = title.split(" ");
    const shared = Math.max(
      k.split(" ").length,
      ...alike.map((t) => {
        const other = t.split(" ");
        const at = words.findIndex((w, i) => w !== other[i]);
        return at < 0 ? words.length - 1 : at;
      }),
    );
    return `${k.replace(" major", "")}: ${words.slice(shared).join(" ")}`;
  });
}
