// Engraves a MusicXML file with verovio, an engraver that nobody here wrote, on
// one line, and lists the note heads: which staff, from left to right, how far
// below the top line in staff spaces, and whether the stem points up.
// Usage: node heads.mjs FILE …
import { readFileSync } from "node:fs";
import path from "node:path";
import { pathToFileURL } from "node:url";

const modules = path.resolve(import.meta.dirname, "../web/node_modules");
const load = (name) => import(pathToFileURL(path.join(modules, name)).href);
const { default: createVerovioModule } = await load("verovio/dist/verovio-module.mjs");
const { VerovioToolkit } = await load("verovio/dist/verovio.mjs");

const toolkit = new VerovioToolkit(await createVerovioModule());
toolkit.setOptions({ inputFrom: "musicxml", breaks: "none", footer: "none", header: "none", svgViewBox: true, adjustPageWidth: true, adjustPageHeight: true });
// A staff space in the units in which it draws.
const space = 180;

function heads(svg) {
  const out = [];
  let top = 0;
  let staff = -1;
  let lines = 0;
  let note;
  // The elements come in the order of the music: measure, staff with its lines, notes with head and stem.
  const find =
    /<g [^>]*class="(measure|staff)[ "]|<path d="M(-?[\d.]+) (-?[\d.]+) L(-?[\d.]+) (-?[\d.]+)"|<use xlink:href="#E0A[234]-[^"]*" transform="translate\((-?[\d.]+), (-?[\d.]+)\)/g;
  for (const m of svg.matchAll(find)) {
    if (m[1] === "measure") staff = -1;
    else if (m[1] === "staff") {
      staff++;
      lines = 0;
      note = undefined;
    } else if (m[2] !== undefined) {
      const [x1, y1, x2, y2] = m.slice(2, 6).map(Number);
      if (y1 === y2 && lines < 5) {
        if (lines === 0) top = y1;
        lines++;
      } else if (x1 === x2 && note && note.up === undefined && Math.abs(x1 - note.x) < 1.5 * space)
        note.up = (y1 + y2) / 2 < top + note.below * space;
    } else if (m[6]) {
      note = { staff, x: Number(m[6]), below: (Number(m[7]) - top) / space };
      out.push(note);
    }
  }
  return out;
}

const out = {};
for (const file of process.argv.slice(2)) {
  if (!toolkit.loadData(readFileSync(file, "utf8"))) throw new Error(`verovio cannot read ${file}`);
  out[file] = heads(toolkit.renderToSVG(1));
}
console.log(JSON.stringify(out));
