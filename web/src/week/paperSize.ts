import type { Schemas } from "../contract/client";

/** A landscape A4 page inside its margins, and the type on it, in CSS pixels. */
const page = { width: 1050, height: 690 };
const line = 13;
const letters = 5.4;

/** Lines that a text takes in a column of a width. */
const lines = (text: string, width: number) => Math.max(1, Math.ceil((text.length * letters) / width));

function itemHeight(item: Schemas["WeekItem"], width: number): number {
  const boxes = item.times > 0 && item.kind !== "review" ? 20 * Math.ceil((item.times * 18 + 30) / width) : 0;
  const where = item.kind === "review" ? 0 : lines(item.where + item.hand, width) * 1.25 * line;
  return (
    line + lines(item.title, width * 0.85) * 1.3 * line + where + boxes + lines(item.words, width) * line + 12
  );
}

/**
 * How large the sheet is drawn on paper, so that the fullest week still fits on
 * one page: the largest size at which the estimated height is within the page.
 */
export function paperSize(week: Schemas["Week"]): number {
  for (let size = 1; size > 0.45; size -= 0.05) {
    const column = page.width / size / 7 - 8;
    const third = page.width / size / 3 - 24;
    const days = week.days.map(
      (d) => 76 + lines(d.focus, column) * line + d.items.reduce((sum, i) => sum + itemHeight(i, column), 0),
    );
    const notYet = week.notYet.reduce((sum, n) => sum + lines(n, third) * 1.3 * line, 30);
    const leftOut = 30 + week.leftOut.slice(0, 6).length * 1.6 * line;
    const height = 120 + 40 + Math.max(...days) + Math.max(notYet, leftOut, 80);
    if (height * size <= page.height) return Number(size.toFixed(2));
  }
  return 0.45;
}
