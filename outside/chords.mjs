// Gives the pitch classes of chords with tonal, a library of music theory that nobody here wrote.
// Usage: node chords.mjs C Am G7 …; prints {"C": [0, 4, 7], …}
import path from "node:path";
import { createRequire } from "node:module";

const need = createRequire(path.resolve(import.meta.dirname, "../web/package.json"));
const { Chord, Note } = need("tonal");
const names = process.argv.slice(2);
console.log(JSON.stringify(Object.fromEntries(names.map((n) => [n, Chord.get(n).notes.map((p) => Note.chroma(p))]))));
