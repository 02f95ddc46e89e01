import type { Schemas } from "../contract/client";
import { minutesOf } from "../data/time";

type Lesson = Schemas["LessonDate"];

/** How many pixels a minute is high. */
const perMinute = 1.5;

export const pixels = (minutes: number) => minutes * perMinute;

/** The whole hours in which there are lessons, from three to seven at the least. */
export function hours(days: Schemas["AgendaDay"][]): { from: number; to: number } {
  let from = 15 * 60;
  let to = 19 * 60;
  for (const d of days)
    for (const l of d.lessons) {
      from = Math.min(from, minutesOf(l.startsAt));
      to = Math.max(to, minutesOf(l.startsAt) + l.minutes);
    }
  return { from: Math.floor(from / 60) * 60, to: Math.ceil(to / 60) * 60 };
}

/** Lessons that overlap stand side by side: each with its column, of how many. */
export function columns(
  lessons: Lesson[],
): { lesson: Lesson & { at: number }; column: number; of: number }[] {
  const sorted = lessons.map((l) => ({ ...l, at: minutesOf(l.startsAt) })).sort((a, b) => a.at - b.at);
  const out: { lesson: (typeof sorted)[number]; column: number; of: number }[] = [];
  let group: typeof out = [];
  let end = 0;
  const close = () => {
    const of = Math.max(0, ...group.map((g) => g.column)) + 1;
    for (const g of group) out.push({ ...g, of });
    group = [];
  };
  for (const lesson of sorted) {
    if (lesson.at >= end) close();
    const taken = group.filter((g) => g.lesson.at + g.lesson.minutes > lesson.at).map((g) => g.column);
    let column = 0;
    while (taken.includes(column)) column++;
    group.push({ lesson, column, of: 1 });
    end = Math.max(end, lesson.at + lesson.minutes);
  }
  close();
  return out;
}

/** Where a lesson is put by dragging it so far: days by columns, minutes in quarters of an hour. */
export function dropped(
  at: { day: number; minutes: number },
  by: { x: number; y: number },
  column: number,
  days: number,
): { day: number; minutes: number } {
  const quarter = 15;
  return {
    day: Math.min(days - 1, Math.max(0, at.day + Math.round(by.x / Math.max(1, column)))),
    minutes: Math.min(
      24 * 60 - quarter,
      Math.max(0, at.minutes + Math.round(by.y / perMinute / quarter) * quarter),
    ),
  };
}
