import type { Schemas } from "../contract/client";

export type Way = Schemas["Way"];

/** A name for each value that the contract has for a switch. */
type Choices = {
  [K in keyof Way]: Way[K] extends string ? { key: K; choices: Record<Way[K], string> } : never;
}[keyof Way];

/** One switch of a way of teaching, as it is set on the screen; its bounds come with the way. */
export type Switch = { name: string } & (
  | { key: keyof Way; kind: "number"; step: number; unit: string; scale?: number }
  | ({ kind: "choice" } & Choices)
  | { key: keyof Way; kind: "yes"; says: string }
);

/** The switches by what they are about. */
export const groups: { title: string; switches: Switch[] }[] = [
  {
    title: "Review",
    switches: [
      {
        key: "reviewShare",
        name: "Share of practice",
        kind: "number",
        step: 5,
        unit: "%",
        scale: 100,
      },
      {
        key: "reviewWeeks",
        name: "Nothing unplayed for more than",
        kind: "number",
        step: 1,
        unit: "weeks",
      },
    ],
  },
  {
    title: "A new piece",
    switches: [
      {
        key: "firstView",
        name: "It opens with",
        kind: "choice",
        choices: { sound: "its sound", score: "the score" },
      },
      {
        key: "approach",
        name: "It is read",
        kind: "choice",
        choices: {
          direction: "by direction",
          interval: "by interval",
          names: "by note names",
          position: "by position",
        },
      },
      {
        key: "readingAfter",
        name: "Reading begins after",
        kind: "number",
        step: 1,
        unit: "weeks",
      },
      {
        key: "firstChunk",
        name: "First chunk (0: by age)",
        kind: "number",
        step: 1,
        unit: "bars",
      },
    ],
  },
  {
    title: "At home and at the instrument",
    switches: [
      {
        key: "dose",
        name: "A step is played",
        kind: "choice",
        choices: {
          years: "once for each year of the student’s age",
          once: "once a day, perfectly",
          three: "three times",
          ten: "five to ten in a row",
          row: "until some in a row are right",
        },
      },
      {
        key: "doseRow",
        name: "In a row means",
        kind: "number",
        step: 1,
        unit: "right ones",
      },
      {
        key: "handShape",
        name: "The hand",
        kind: "choice",
        choices: { hanging: "as it hangs", ball: "as if holding a ball" },
      },
      {
        key: "benchLean",
        name: "Forearms lie",
        kind: "choice",
        choices: { level: "level", above: "slightly above", below: "slightly below" },
      },
      { key: "homeCounts", name: "What home shows", kind: "yes", says: "shapes the next week" },
    ],
  },
  {
    title: "Leaps and clearing",
    switches: [
      {
        key: "standard",
        name: "A run needs",
        kind: "choice",
        choices: {
          light: "notes and rhythm, no stop",
          "": "fingers and tone too",
          strict: "loud and soft as well",
        },
      },
      {
        key: "secureAfter",
        name: "A skill is secure after",
        kind: "number",
        step: 1,
        unit: "pieces",
      },
      {
        key: "comfortable",
        name: "A comfortable leap at first",
        kind: "number",
        step: 0.1,
        unit: "",
      },
      { key: "easeAfterLeap", name: "After a large leap", kind: "yes", says: "an easy piece comes next" },
      { key: "rewards", name: "Treats", kind: "yes", says: "families see what was promised" },
      { key: "stuckLessons", name: "Stuck after", kind: "number", step: 1, unit: "lessons" },
    ],
  },
  {
    title: "Looking ahead",
    switches: [
      {
        key: "bites",
        name: "Preview bites in a lesson",
        kind: "number",
        step: 1,
        unit: "at most",
      },
      { key: "lookRungs", name: "Previews look at", kind: "number", step: 1, unit: "rungs" },
      {
        key: "lookWeeks",
        name: "and at what begins within",
        kind: "number",
        step: 1,
        unit: "weeks",
      },
      {
        key: "polishWeeks",
        name: "From cleared to performed",
        kind: "number",
        step: 1,
        unit: "weeks",
      },
      {
        key: "sure",
        name: "A target should be",
        kind: "number",
        step: 5,
        unit: "% sure",
        scale: 100,
      },
    ],
  },
];
