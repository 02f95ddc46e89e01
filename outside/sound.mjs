// Reads a MusicXML file with verovio, an engraver that nobody here wrote, and
// writes what it would play as a MIDI file, repeats played out or not.
// Usage: node sound.mjs expandNever|expandAlways IN OUT [IN OUT …]
import { readFileSync, writeFileSync } from "node:fs";
import { pathToFileURL } from "node:url";
import path from "node:path";

const modules = path.resolve(import.meta.dirname, "../web/node_modules");
const load = (name) => import(pathToFileURL(path.join(modules, name)).href);
const { default: createVerovioModule } = await load("verovio/dist/verovio-module.mjs");
const { VerovioToolkit } = await load("verovio/dist/verovio.mjs");

const toolkit = new VerovioToolkit(await createVerovioModule());
const [expand, ...pairs] = process.argv.slice(2);
toolkit.setOptions({ [expand]: true, inputFrom: "musicxml" });
for (let i = 0; i + 1 < pairs.length; i += 2) {
  if (!toolkit.loadData(readFileSync(pairs[i], "utf8"))) throw new Error(`verovio cannot read ${pairs[i]}`);
  writeFileSync(pairs[i + 1], Buffer.from(toolkit.renderToMIDI(), "base64"));
}
