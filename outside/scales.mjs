// Spells scales and triads with tonal, a library of music theory that nobody here wrote.
// Usage: node scales.mjs; prints {"major": {"Db": ["Db", …]}, …}
import path from "node:path";
import { createRequire } from "node:module";

const need = createRequire(path.resolve(import.meta.dirname, "../web/package.json"));
const { Scale, Chord } = need("tonal");
const kinds = { major: "major", "natural-minor": "minor", "harmonic-minor": "harmonic minor", "melodic-minor": "melodic minor" };
const keys = ["C", "D", "E", "F", "G", "A", "B"].flatMap((k) => [`${k}b`, k, `${k}#`]);
const out = {};
for (const [ours, theirs] of Object.entries(kinds))
  out[ours] = Object.fromEntries(keys.map((k) => [k, Scale.get(`${k} ${theirs}`).notes]));
for (const [ours, theirs] of [["major-arpeggio", "M"], ["minor-arpeggio", "m"]])
  out[ours] = Object.fromEntries(keys.map((k) => [k, Chord.getChord(theirs, k).notes]));
console.log(JSON.stringify(out));
