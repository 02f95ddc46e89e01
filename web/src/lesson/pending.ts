import type { Schemas } from "../contract/client";
import type { Entry } from "../data/outbox";
import { gateNames } from "../week/kinds";

type Lesson = Schemas["Lesson"];
type Piece = Schemas["LessonPiece"];

/**
 * The lesson as it will be when the server has the entries that still wait on
 * this device. What only the server can work out (the next rung, the sentence)
 * stays as it was.
 */
export function withPending(lesson: Lesson, entries: Entry[]): Lesson {
  const known = new Set(lesson.log.map((l) => l.id));
  const corrected = new Set(entries.filter((e) => e.kind === "correction").map((e) => e.corrects ?? ""));
  let out: Lesson = {
    ...lesson,
    log: lesson.log.filter((l) => !corrected.has(l.id)),
    taken: (lesson.taken ?? []).filter((l) => !corrected.has(l.id)),
  };
  for (const e of entries) if (!known.has(e.id) && !corrected.has(e.id)) out = add(out, e);
  return out;
}

function add(lesson: Lesson, e: Entry): Lesson {
  switch (e.kind) {
    case "mark":
      return logged(
        piece(lesson, e, (p) => ({
          ...p,
          // A lesson that was kept by an earlier version has none.
          faults: p.faults?.map((x) => (x.id === e.focus ? { ...x, mark: e.mark } : x)) ?? [],
          points: p.points.map((x) => (x.id === e.focus ? { ...x, mark: e.mark, marked: e.id } : x)),
        })),
        e,
        `${pointText(lesson, e)}: ${e.mark}`,
      );
    case "spotAdded":
      return logged(
        piece(lesson, e, (p) => ({
          ...p,
          spots: [
            ...p.spots,
            { id: e.id, from: e.from ?? 1, to: e.to ?? 1, where: where(p, e), mended: false },
          ],
        })),
        e,
        "A hard spot",
      );
    case "spotMended":
      return logged(
        piece(lesson, e, (p) => ({
          ...p,
          spots: p.spots.map((s) => (s.id === e.spot ? { ...s, mended: true } : s)),
        })),
        e,
        "A spot is mended",
      );
    case "run":
      return run(lesson, e);
    case "hearing":
      return logged(
        {
          ...lesson,
          reviews: lesson.reviews.map((r) =>
            r.material === e.material ? { ...r, heardToday: true, rating: e.rating } : r,
          ),
        },
        e,
        `“${lesson.reviews.find((r) => r.material === e.material)?.title}” heard: ${e.rating} of 4`,
      );
    case "stepDone":
      return logged(
        { ...lesson, bites: lesson.bites.filter((b) => b.skill !== e.skill) },
        e,
        `Preview step ${e.step}`,
      );
    case "focusAdded":
      return logged(
        {
          ...lesson,
          pieces: lesson.pieces.map((p) =>
            e.material && e.material !== p.material
              ? p
              : {
                  ...p,
                  points: [
                    ...p.points,
                    { id: e.focus ?? e.id, text: e.text ?? "", own: !e.material, history: [] },
                  ],
                },
          ),
        },
        e,
        `Own focus point: ${e.text}`,
      );
    case "gate":
      return logged(
        piece(lesson, e, (p) => ({ ...p, gate: e.gate ?? "automatic" })),
        e,
        `Hands at home: ${gateNames[e.gate ?? "automatic"]}`,
      );
    case "wentWell":
      return logged(lesson, e, `Went well: ${e.text}`);
    case "bring":
      return logged(lesson, e, `To bring: ${e.text}`);
    case "correction":
      return lesson;
    default:
      return logged(lesson, e, e.text ?? e.kind);
  }
}

const piece = (lesson: Lesson, e: Entry, change: (p: Piece) => Piece): Lesson => ({
  ...lesson,
  pieces: lesson.pieces.map((p) => (p.material === e.material ? change(p) : p)),
});

const logged = (lesson: Lesson, e: Entry, text: string): Lesson => ({
  ...lesson,
  log: [...lesson.log, { id: e.id, at: e.at, kind: e.kind, text }],
});

const pointText = (lesson: Lesson, e: Entry) =>
  lesson.pieces
    .filter((p) => p.material === e.material)
    .flatMap((p) => [...p.points, ...(p.faults ?? [])])
    .find((x) => x.id === e.focus)?.text ?? "Mark";

const where = (p: Piece, e: Entry) => {
  const label = (bar?: number) => p.barLabels[(bar ?? 1) - 1] ?? String(bar);
  return e.from === e.to ? `bar ${label(e.from)}` : `bars ${label(e.from)}–${label(e.to)}`;
};

/** A run clears the piece when every point of the standard was met. */
function run(lesson: Lesson, e: Entry): Lesson {
  const missing = lesson.standard.filter((s) => !e.met?.includes(s.id));
  const cleared = missing.length === 0;
  const why = cleared
    ? "The run met every point of the standard."
    : `It stays a working piece: ${missing.map((m) => m.name.toLowerCase()).join(", ")} not yet.`;
  const title = lesson.pieces.find((p) => p.material === e.material)?.title;
  return logged(
    piece(lesson, e, (p) => ({
      ...p,
      state: cleared ? "cleared" : p.state,
      why,
      runs: [...p.runs, { id: e.id, at: e.at, met: e.met ?? [], cleared, why }],
    })),
    e,
    `Run of “${title}”: ${cleared ? "cleared" : "it stays"}`,
  );
}
