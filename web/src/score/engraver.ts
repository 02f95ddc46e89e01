import type { OpenSheetMusicDisplay } from "opensheetmusicdisplay";

/** Where something of the score stands on the page, in pixels. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The places of an engraved score, for laying marks over it. */
export interface Places {
  width: number;
  height: number;
  /** Engraved small, as on a phone: what is laid over it has less room. */
  small: boolean;
  /** The head of a note by bar (from 1), staff over all parts (from 0), quarters into the bar, and written pitch. */
  note(bar: number, staff: number, at: number, pitch: number): Box | undefined;
  /** A bar from the top staff to the lowest. */
  bar(bar: number): Box | undefined;
  /** The top of the line of bars that a bar stands in, with the notes above its staves. */
  lineTop(bar: number): number;
  /** One staff of a bar, staves over all parts from 0. */
  staff(bar: number, staff: number): Box | undefined;
}

/** OpenSheetMusicDisplay counts in tenths of a staff space unit; ten pixels make one unit. */
const unit = 10;

/** A score with its declaration, without which the engraver takes it for an address. */
export const declared = (xml: string) =>
  xml.trimStart().startsWith("<?xml") ? xml.trimStart() : `<?xml version="1.0" encoding="UTF-8"?>\n${xml}`;

/** Engraves a score into an element. The engraver is loaded only here, when a score is shown. */
export async function engrave(
  el: HTMLElement,
  xml: string,
  options: { ink: string; zoom: number; room: number; fingers?: boolean },
): Promise<{ places: Places; osmd: OpenSheetMusicDisplay }> {
  const { OpenSheetMusicDisplay } = await import("opensheetmusicdisplay");
  el.replaceChildren();
  const osmd = new OpenSheetMusicDisplay(el, {
    autoResize: false,
    backend: "svg",
    drawTitle: false,
    drawSubtitle: false,
    drawComposer: false,
    drawLyricist: false,
    drawPartNames: false,
    drawingParameters: "compacttight",
    defaultColorMusic: options.ink,
    // Over a piece the fingers are laid as marks that can be pressed.
    drawFingerings: options.fingers ?? false,
    drawMeasureNumbersOnlyAtSystemStart: true,
    autoBeam: !xml.includes("<beam"), // a score that says nothing of beams gets the usual ones
  });
  osmd.EngravingRules.RenderStringNumbersClassical = false; // the strings are drawn beside it
  // Room between the systems for what is laid over and under them.
  osmd.EngravingRules.MinimumDistanceBetweenSystems = options.room;
  await osmd.load(declared(xml));
  osmd.zoom = options.zoom;
  osmd.render();
  for (const svg of el.querySelectorAll("svg")) reachFoot(svg);
  return { places: placesOf(osmd, el), osmd };
}

/** Makes a drawing as high as what it holds: the engraver counts no slur or low note under its last staff. */
function reachFoot(svg: SVGSVGElement) {
  const drawn = svg.getBBox();
  const shown = svg.viewBox.baseVal;
  const foot = drawn.y + drawn.height + unit / 2;
  if (!shown || shown.height === 0 || foot <= shown.y + shown.height) return;
  const perUnit = svg.height.baseVal.value / shown.height;
  const height = foot - shown.y;
  svg.setAttribute("viewBox", `${shown.x} ${shown.y} ${shown.width} ${height}`);
  svg.setAttribute("height", `${height * perUnit}`);
}

function placesOf(osmd: OpenSheetMusicDisplay, el: HTMLElement): Places {
  const scale = unit * osmd.zoom;
  const notes = new Map<string, Box>();
  const bars = new Map<number, Box>();
  const staves = new Map<string, Box>();
  // By the height of the line of bars: its bars share one top, so that what stands over them is level.
  const lineTops = new Map<number, number>();
  const raise = (bar: number, y: number) => {
    const line = Math.round(bars.get(bar)?.y ?? y);
    lineTops.set(line, Math.min(lineTops.get(line) ?? y, y));
  };
  osmd.GraphicSheet.MeasureList.forEach((measures, index) => {
    measures.forEach((measure, staff) => {
      if (!measure) return;
      const at = measure.PositionAndShape.AbsolutePosition;
      const box = {
        x: at.x * scale,
        y: at.y * scale,
        width: measure.PositionAndShape.Size.width * scale,
        height: 4 * scale,
      };
      staves.set(`${index + 1} ${staff}`, box);
      const known = bars.get(index + 1);
      bars.set(index + 1, known ? around(known, box) : box);
      for (const entry of measure.staffEntries)
        for (const voice of entry.graphicalVoiceEntries)
          for (const note of voice.notes) {
            const source = note.sourceNote;
            if (source.isRest() || voice.parentVoiceEntry.IsGrace) continue;
            const head = note.PositionAndShape.AbsolutePosition;
            const y = head.y * scale - 0.5 * scale;
            raise(index + 1, y);
            const quarters = entry.relInMeasureTimestamp.RealValue * 4;
            // The engraver counts semitones from C0 = 0 where MIDI has 12.
            notes.set(key(index + 1, staff, quarters, source.halfTone + 12), {
              x: head.x * scale - 0.6 * scale,
              y,
              width: 1.2 * scale,
              height: scale,
            });
          }
    });
  });
  return {
    width: el.scrollWidth,
    height: el.scrollHeight,
    small: osmd.zoom < 1,
    note: (bar, staff, at, pitch) => notes.get(key(bar, staff, at, pitch)),
    bar: (bar) => bars.get(bar),
    lineTop: (bar) => {
      const y = bars.get(bar)?.y ?? 0;
      return Math.min(lineTops.get(Math.round(y)) ?? y, y);
    },
    staff: (bar, staff) => staves.get(`${bar} ${staff}`),
  };
}

const key = (bar: number, staff: number, at: number, pitch: number) =>
  `${bar} ${staff} ${Math.round(at * 960)} ${pitch}`;

function around(a: Box, b: Box): Box {
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}
