import type { Schemas } from "../contract/client";

const names = 210;
const head = 150;
const row = 21;

/**
 * The leaps of a book in order over the band of a comfortable leap, and under
 * them where each skill enters (solid), comes again (hollow), or never does.
 */
export function Gradation(props: { book: Schemas["BookProfile"]; at: number; onPick: (i: number) => void }) {
  const { book } = props;
  const n = book.lines.length;
  if (n === 0) return null;
  const step = Math.max(24, Math.min(44, 690 / n));
  const most = Math.max(book.reach * 1.3, ...book.lines.map((l) => l.leap.size));
  const y = (leap: number) => head - (leap / most) * (head - 24);
  const skills = book.skills.filter((s) => !s.brought);
  const brought = book.skills.length - skills.length;
  const width = names + n * step + 12;
  const height = head + 34 + skills.length * row;
  return (
    <figure className="mt-3 overflow-x-auto">
      <Caption line={book.lines[props.at]} />
      <div className="relative" style={{ width, height }}>
        <svg width={width} height={height} role="img" aria-label={`Leaps and skills of ${book.title}`}>
          <rect
            x={names - 6}
            y={y(book.reach)}
            width={n * step + 12}
            height={head - y(book.reach)}
            fill="var(--color-reach)"
            rx="5"
          />
          {props.at >= 0 && (
            <rect
              x={names + props.at * step}
              y="0"
              width={step}
              height={height}
              fill="var(--color-fold)"
              opacity="0.75"
            />
          )}
          {book.lines.map((l, i) => (
            <Stroke
              key={l.material}
              line={l}
              x={names + i * step}
              width={step}
              y={y(l.leap.size)}
              first={i === 0}
            />
          ))}
          {skills.map((s, k) => {
            const cy = head + 40 + k * row;
            const first = s.at[0] ?? 0;
            const last = s.at.at(-1) ?? 0;
            return (
              <g key={s.skill}>
                <text
                  x={names - 14}
                  y={cy + 4}
                  textAnchor="end"
                  fontSize="12.5"
                  fill={s.at.length === 1 ? "var(--color-cliff)" : "var(--color-ink)"}
                >
                  {short(s.name)}
                </text>
                <path
                  d={`M${names + (first + 0.5) * step} ${cy}H${names + (last + 0.5) * step}`}
                  stroke="var(--color-line)"
                  strokeWidth="1.5"
                />
                {s.at.map((at, j) => (
                  <circle
                    key={at}
                    cx={names + (at + 0.5) * step}
                    cy={cy}
                    r={j === 0 ? 5 : 3.6}
                    fill={j === 0 ? "var(--color-working)" : "var(--color-paper)"}
                    stroke="var(--color-working)"
                    strokeWidth="1.5"
                  />
                ))}
              </g>
            );
          })}
        </svg>
        <ol className="absolute top-0 flex" style={{ left: names }}>
          {book.lines.map((l, i) => (
            <li key={l.material}>
              <button
                type="button"
                aria-pressed={i === props.at}
                aria-label={`${i + 1}. ${l.title}, ${i > 0 && l.cliff ? "a cliff, " : ""}leap ${l.leap.words}`}
                title={l.title}
                onClick={() => props.onPick(i)}
                style={{ width: step, height: head + 26 }}
                className="block hover:bg-fold/60"
              />
            </li>
          ))}
        </ol>
      </div>
      <figcaption className="fine">
        Height is the leap; the band is comfortable. Solid: the skill enters; hollow: it comes again;{" "}
        <span className="text-cliff">red names</span> never come again.
        {brought > 0 && ` ${brought} skills are brought along and not drawn.`}
      </figcaption>
    </figure>
  );
}

/** The piece that was touched, in one line over the drawing; all of it stands below. */
function Caption({ line }: { line?: Schemas["BookLine"] }) {
  if (!line) return null;
  return (
    <p className="line-clamp-1" aria-live="polite">
      <strong>{line.title}</strong>
      <span className="figures">
        {line.page > 0 && `, page ${line.page}`}: leap {line.leap.words}
      </span>
      {line.enters.length > 0 && <span className="text-soft">, new {line.enters.join(", ")}</span>}
    </p>
  );
}

function Stroke(props: { line: Schemas["BookLine"]; x: number; width: number; y: number; first: boolean }) {
  const { line, x, width, y } = props;
  const cliff = line.cliff && !props.first;
  return (
    <g>
      <path d={`M${x + width / 2} ${head}V${y}`} stroke="var(--color-line)" strokeWidth="2" />
      <path
        d={`M${x + 3} ${y}H${x + width - 3}`}
        stroke={cliff ? "var(--color-cliff)" : "var(--color-working)"}
        strokeWidth={cliff ? 6 : 4}
        strokeLinecap="round"
      />
      {cliff && (
        <text
          x={x + width / 2}
          y={y - 8}
          textAnchor="middle"
          fontSize="12"
          fontWeight="600"
          fill="var(--color-cliff)"
        >
          {line.leap.words}
        </text>
      )}
      <text x={x + width / 2} y={head + 18} textAnchor="middle" fontSize="11.5" fill="var(--color-soft)">
        {line.page || ""}
      </text>
    </g>
  );
}

const short = (name: string) => (name.length > 32 ? `${name.slice(0, 31)}…` : name);
