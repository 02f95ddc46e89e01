/** Minutes after midnight of a time such as 15:30. */
export const minutesOf = (clock: string): number => {
  const [h, m] = clock.split(":").map(Number);
  return (h ?? 0) * 60 + (m ?? 0);
};

/** A time such as 15:30 of minutes after midnight. */
export const clockOf = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;

/** The date so many days after another, both as 2026-05-04. */
export const addDays = (date: string, n: number): string => {
  const d = new Date(`${date}T00:00:00Z`);
  d.setUTCDate(d.getUTCDate() + n);
  return d.toISOString().slice(0, 10);
};

/** The first day of the week in which a date lies; a week begins on firstDay, 0 for Sunday. */
export const weekStart = (date: string, firstDay: number): string => {
  const weekday = new Date(`${date}T00:00:00Z`).getUTCDay();
  return addDays(date, -((weekday - firstDay + 7) % 7));
};

/** The days of a week in their order, 0 for Sunday. */
export const weekdaysFrom = (firstDay: number): number[] =>
  [0, 1, 2, 3, 4, 5, 6].map((n) => (firstDay + n) % 7);

/** How many days lie between two dates. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);

/** The first day of the month so many months from that of a date. */
export const monthOf = (date: string, by = 0): string => {
  const d = new Date(`${date}T00:00:00Z`);
  return new Date(Date.UTC(d.getUTCFullYear(), d.getUTCMonth() + by, 1)).toISOString().slice(0, 10);
};

/** A birthday for somebody of so many years, half a year before the next one. */
export const bornAt = (age: number, today: string): string => addDays(today, -Math.round(age * 365.25 + 182));
