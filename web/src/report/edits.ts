import type { Schemas } from "../contract/client";

type Written = Schemas["WrittenReport"];
type Sentence = Schemas["ReportSentence"];

/** The report with one sentence said otherwise; empty leaves it out, as drafted takes the change back. */
export function say(w: Written, s: Sentence, text: string): Written {
  const edits = w.edits.filter((e) => e.part !== s.part);
  const clean = text.trim();
  return {
    ...w,
    edits: clean === s.drafted ? edits : [...edits, { part: s.part, text: clean, was: s.drafted }],
  };
}

/** The change stays, and is held against what the facts say now. */
export const keep = (w: Written, s: Sentence): Written => ({
  ...w,
  edits: w.edits.map((e) => (e.part === s.part ? { ...e, was: s.drafted } : e)),
});
