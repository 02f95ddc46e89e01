import type { Schemas } from "../contract/client";

/** The holes from the thumb down, with a gap between the hands. */
const holes = ["T", "1", "2", "3", "4", "5", "6", "7"];
const holeY = (hole: string) => 18 + holes.indexOf(hole) * 19 + (hole > "3" && hole !== "T" ? 8 : 0);

/** How each note of an exercise is fingered; the one that sounds is lit. */
export function Chart(props: { exercise: Schemas["Exercise"]; sounding: Schemas["ExerciseNote"][] }) {
  const { exercise: e } = props;
  const lit = props.sounding.map((n) => n.midi);
  return (
    <ol className="m-0 flex list-none flex-wrap gap-x-3 gap-y-2 p-0" aria-label="Fingerings">
      {e.chart.map((c) => (
        <li
          key={c.midi}
          data-lit={lit.includes(c.midi) || undefined}
          className={`flex flex-col items-center rounded-lg px-2 py-1 ${lit.includes(c.midi) ? "bg-lit" : ""}`}
        >
          <strong>{c.name}</strong>
          {e.chartOf === "holes" ? <Holes signs={c.signs} /> : <Signs kind={e.chartOf} signs={c.signs} />}
        </li>
      ))}
    </ol>
  );
}

/** Closed holes are filled, half ones to the half, open ones empty. */
function Holes({ signs }: { signs: string }) {
  return (
    <svg viewBox="0 0 34 186" className="h-40" role="img" aria-label={spoken(signs)}>
      {holes.map((h) => {
        const closed = signs.includes(h);
        const half = signs.includes(`${h}/`);
        const x = h === "T" ? 10 : 20;
        const y = holeY(h);
        return (
          <g key={h}>
            <circle
              cx={x}
              cy={y}
              r="7"
              fill={closed && !half ? "var(--color-working)" : "none"}
              stroke="var(--color-working)"
              strokeWidth="1.8"
            />
            {half && <path d={`M${x - 7} ${y}A7 7 0 0 0 ${x + 7} ${y}Z`} fill="var(--color-working)" />}
          </g>
        );
      })}
    </svg>
  );
}

const spoken = (signs: string) =>
  holes
    .filter((h) => signs.includes(h))
    .map((h) => `${h === "T" ? "thumb" : h}${signs.includes(`${h}/`) ? " half" : ""}`)
    .join(", ") || "all open";

/** Valves that are pressed, or the place of the slide. */
function Signs({ kind, signs }: { kind: string; signs: string }) {
  if (kind === "slide") return <span className="figures text-xl">{signs}</span>;
  return (
    <span className="flex gap-1" role="img" aria-label={signs === "0" ? "no valve" : `valves ${signs}`}>
      {["1", "2", "3"].map((v) => (
        <span
          key={v}
          className={`figures inline-flex h-7 w-7 items-center justify-center rounded-full border-2 border-working ${signs.includes(v) ? "bg-working text-on-working" : ""}`}
        >
          {v}
        </span>
      ))}
    </span>
  );
}
