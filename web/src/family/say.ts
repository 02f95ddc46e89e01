import { createContext, useContext } from "react";

/** A text of the page in the family's language, with what stands in its places. */
export type Say = (key: string, filled?: Record<string, string | number>) => string;

export const sayer =
  (texts: Record<string, string>): Say =>
  (key, filled = {}) =>
    Object.entries(filled).reduce(
      (text, [place, value]) => text.replaceAll(`{${place}}`, String(value)),
      texts[key] ?? "",
    );

/** What the page says, and how it writes dates. */
export interface Spoken {
  say: Say;
  locale: string;
}

export const SpokenContext = createContext<Spoken>({ say: sayer({}), locale: "en-GB" });

const at = (date: string) => new Date(`${date}T00:00:00Z`);

/** The texts of the page, and dates in its language. */
export function useSay() {
  const { say, locale } = useContext(SpokenContext);
  const format = (date: string, options: Intl.DateTimeFormatOptions) =>
    new Intl.DateTimeFormat(locale, { timeZone: "UTC", ...options }).format(at(date));
  return {
    say,
    weekday: (date: string) => format(date, { weekday: "long" }),
    shortDay: (date: string) => format(date, { weekday: "short" }).replace(".", ""),
    longDay: (date: string) => format(date, { weekday: "long", day: "numeric", month: "long" }),
    dayAndYear: (date: string) => format(date, { day: "numeric", month: "long", year: "numeric" }),
  };
}
