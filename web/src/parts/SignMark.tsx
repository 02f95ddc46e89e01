import type { Schemas } from "../contract/client";

type Kind = Schemas["Sign"]["kind"];

/** What the signs are called when they are counted. */
export const signNames: Record<Kind, string> = {
  run: "Ready for a run",
  stuck: "Stuck",
  choose: "Needs a piece",
  late: "Late preview",
  cliff: "Big jump ahead",
  dry: "Empty strand",
  spot: "Hard spots",
  bench: "Measure the bench",
  review: "Review due",
};

const shapes: Record<Kind, string> = {
  run: "M4 16L10 4l6 12z",
  stuck: "M4 4h12v12H4z",
  choose: "M10 3v14M3 10h14",
  late: "M10 3a7 7 0 1 0 .1 0zM10 6v5l4 2",
  cliff: "M3 17V3l6 6 8-6v14z",
  dry: "M7 3v14M13 3v14",
  spot: "M3 7h14M3 13h14",
  bench: "M2 8h16M5 8v9M15 8v9",
  review: "M3 10.5l5 5L17.5 4.5",
};

/** The shape of a sign: nothing depends on its colour alone. */
export function SignMark({ kind }: { kind: Kind }) {
  return (
    <svg
      viewBox="0 0 20 20"
      width="16"
      height="16"
      aria-hidden="true"
      className={`mt-1 shrink-0 ${colours[kind]}`}
    >
      <path
        d={shapes[kind]}
        fill={kind === "run" || kind === "stuck" || kind === "cliff" ? "currentColor" : "none"}
        stroke="currentColor"
        strokeWidth="2.4"
      />
    </svg>
  );
}

const colours: Record<Kind, string> = {
  run: "text-working",
  stuck: "text-cliff",
  choose: "text-working",
  late: "text-preview",
  cliff: "text-cliff",
  dry: "text-preview",
  spot: "text-soft",
  bench: "text-soft",
  review: "text-review",
};
