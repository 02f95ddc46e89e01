import type { Schemas } from "../contract/client";

const day = 24 * 60 * 60 * 1000;
const at = (date: string) => Date.parse(`${date}T00:00:00Z`);

/** Days from one date to another. */
export const daysBetween = (from: string, to: string) => Math.round((at(to) - at(from)) / day);

/** How tall a day is drawn, in pixels: a month fills the screen loosely, years grow tall. */
export const scale = (days: number) => Math.max(2.3, Math.min(12, 620 / Math.max(1, days)));

/** The picture of a span: time climbs, the last day is at the top. */
export interface Picture {
  height: number;
  /** How far below the top a date lies. */
  y: (date: string) => number;
  months: { y: number; name: string; year: boolean }[];
}

const month = new Intl.DateTimeFormat("en-GB", { month: "short", timeZone: "UTC" });

/** Room above the last day for what is in work. */
export const above = 34;

export function picture(from: string, to: string): Picture {
  const px = scale(daysBetween(from, to) + 1);
  const y = (date: string) =>
    above + Math.max(0, Math.min(daysBetween(from, to), daysBetween(date, to))) * px;
  const months: Picture["months"] = [];
  const d = new Date(at(from));
  for (let m = new Date(Date.UTC(d.getUTCFullYear(), d.getUTCMonth() + 1, 1)); m.getTime() <= at(to); ) {
    const january = m.getUTCMonth() === 0;
    months.push({
      y: y(m.toISOString().slice(0, 10)),
      name: january ? `${month.format(m)} ${m.getUTCFullYear()}` : month.format(m),
      year: january,
    });
    m = new Date(Date.UTC(m.getUTCFullYear(), m.getUTCMonth() + 1, 1));
  }
  return { height: y(from) + 20, y, months };
}

/** How many lines of a title fit beside a piece before the one below it begins; none where it is too short for one. */
export const titleLines = (height: number) => Math.max(0, Math.min(3, Math.floor((height + 3) / 14)));

/** How wide the rails of a piece stand apart: by the effort that it asked for. */
export const spread = (leap: number) => 6 + Math.min(5, leap) * 5;

/** The columns of the strands, as shares of the width: as many parts as there are lanes. */
export function columns(strands: Schemas["StrandLanes"][]) {
  const all = strands.reduce((n, s) => n + s.lanes, 0);
  let before = 0;
  return strands.map((s) => {
    const column = { strand: s.strand, left: before / all, width: s.lanes / all, lanes: s.lanes };
    before += s.lanes;
    return column;
  });
}

/** The hearings by their day, in their order. */
export function hearings(heard: Schemas["HeardPiece"][]) {
  const days = new Map<string, Schemas["HeardPiece"][]>();
  for (const h of heard) days.set(h.day, [...(days.get(h.day) ?? []), h]);
  return [...days].map(([date, list]) => ({ date, list }));
}

/** Skills by the day on which they became secure, no two groups nearer than a line is tall. */
export function secureGroups(skills: Schemas["SkillDay"][], y: (date: string) => number, line: number) {
  const groups: { date: string; y: number; names: string[] }[] = [];
  for (const s of [...skills].sort((a, b) => b.day.localeCompare(a.day))) {
    const last = groups.at(-1);
    if (last && y(s.day) - last.y < line) last.names.push(s.name);
    else groups.push({ date: s.day, y: y(s.day), names: [s.name] });
  }
  return groups;
}
