import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Entry } from "../data/outbox";

/** What was typed and tapped of a lesson that is entered afterwards. Nothing of it is preset. */
export interface Draft {
  /** The mark of a focus point, by material and point */
  marks: Record<string, Record<string, Schemas["Mark"]>>;
  /** How a learned piece went, 1 to 4, by material */
  heard: Record<string, number>;
  cleared: string[];
  /** A piece that was begun; empty for none */
  begun: string;
  note: string;
  bring: string;
}

export const nothing: Draft = { marks: {}, heard: {}, cleared: [], begun: "", note: "", bring: "" };

/** The same mark again takes it away. */
export function mark(d: Draft, material: string, point: string, to: Schemas["Mark"]): Draft {
  const { [point]: was, ...others } = d.marks[material] ?? {};
  return { ...d, marks: { ...d.marks, [material]: was === to ? others : { ...others, [point]: to } } };
}

/** The same rating again takes it away. */
export function hear(d: Draft, material: string, to: number): Draft {
  const { [material]: was, ...others } = d.heard;
  return { ...d, heard: was === to ? others : { ...others, [material]: to } };
}

export const clear = (d: Draft, material: string): Draft => ({
  ...d,
  cleared: d.cleared.includes(material) ? d.cleared.filter((m) => m !== material) : [...d.cleared, material],
});

/** The entries of a draft, a second apart from the time of the lesson on: what was begun comes first. */
export function entries(d: Draft, from: string): Entry[] {
  const out: Entry[] = [];
  if (d.begun) out.push(entry("assigned", { material: d.begun }));
  for (const [material, points] of Object.entries(d.marks))
    for (const [focus, to] of Object.entries(points)) out.push(entry("mark", { material, focus, mark: to }));
  for (const [material, rating] of Object.entries(d.heard)) out.push(entry("hearing", { material, rating }));
  for (const material of d.cleared) out.push(entry("cleared", { material }));
  if (d.note.trim()) out.push(entry("note", { text: d.note.trim() }));
  if (d.bring.trim()) out.push(entry("bring", { text: d.bring.trim() }));
  const start = Date.parse(from);
  return out.map((e, i) => ({ ...e, at: new Date(start + 1000 * i).toISOString() }));
}
