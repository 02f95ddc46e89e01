import type { Schemas } from "../contract/client";

type Student = Schemas["Student"];

const names = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];

/** Letters without marks, in lower case, so that “zoe” finds “Zoë”. */
export const plain = (text: string) => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** The students that a search finds, in groups: by the day of the lesson from the first day of the week on, or by the first letter. */
export function groupsOf(
  students: readonly Student[],
  by: "day" | "name",
  wanted: string,
  firstDay: number,
): { title: string; students: Student[] }[] {
  const words = plain(wanted).split(/\s+/).filter(Boolean);
  const found = students.filter((s) => {
    const text = plain(`${s.name} ${s.called} ${s.instrument}`);
    return words.every((w) => text.includes(w));
  });
  const groups = new Map<string, Student[]>();
  const into = (title: string, s: Student) => groups.set(title, [...(groups.get(title) ?? []), s]);
  const here = found.filter((s) => s.state === "active");
  if (by === "name")
    for (const s of [...here].sort((a, b) => a.name.localeCompare(b.name)))
      into(plain(s.name).charAt(0).toUpperCase(), s);
  else {
    const place = (s: Student) => (s.weekday < 0 ? 8 : (s.weekday - firstDay + 7) % 7);
    const sorted = [...here].sort(
      (a, b) => place(a) - place(b) || a.startsAt.localeCompare(b.startsAt) || a.name.localeCompare(b.name),
    );
    for (const s of sorted) into(names[s.weekday] ?? "No lesson time yet", s);
  }
  for (const s of found.filter((x) => x.state === "paused")) into("Paused", s);
  for (const s of found.filter((x) => x.state === "gone")) into("Left", s);
  return [...groups].map(([title, list]) => ({ title, students: list }));
}
