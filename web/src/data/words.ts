import type { Schemas } from "../contract/client";

export const strandNames: Record<Schemas["Strand"], string> = {
  method: "Method",
  technique: "Technique",
  reading: "Reading",
  repertoire: "Repertoire",
  ear: "Ear and rhythm",
};

/** How a learned piece went, from 1 to 4. */
export const ratingNames = ["fell apart", "shaky", "solid", "easy and musical"] as const;

export const markNames: Record<Schemas["Mark"], string> = { none: "not yet", part: "part", full: "full" };

const day = new Intl.DateTimeFormat("en-GB", {
  weekday: "long",
  day: "numeric",
  month: "long",
  timeZone: "UTC",
});
const short = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });
const weekday = new Intl.DateTimeFormat("en-GB", { weekday: "long", timeZone: "UTC" });

/** "Monday 23 November" for a date such as 2026-11-23. */
export const longDay = (date: string) => day.format(new Date(`${date}T00:00:00Z`));
/** "Monday". */
export const weekdayOf = (date: string) => weekday.format(new Date(`${date}T00:00:00Z`));
/** "23 Nov 2026" for a moment. */
export const shortDate = (moment: string) => short.format(new Date(moment));

/** "one week", "3 weeks". */
export const weeks = (n: number) => (n === 1 ? "one week" : `${n} weeks`);

/** Leaps are shown with one decimal, in figures of equal width. */
export const leapSize = (size: number) => size.toFixed(1);

/** Minutes with a half where there is one: "4", "2½". */
export const minutes = (m: number) => `${Math.floor(m) || (m % 1 ? "" : "0")}${m % 1 ? "½" : ""}`;

export const firstName = (name: string) => name.split(" ")[0] ?? name;
