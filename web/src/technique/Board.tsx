import type { Schemas } from "../contract/client";
import { isBlack, layOut, w } from "../piece/keyboard";
import { type Hands, keysOf, type Pressed } from "./notes";

const tall = 104;
/** Between the keyboard of the right hand and that of the left; threads run through it. */
const apart = 40;
const below = 12;

/**
 * The fingers of a scale on the keys, on the way up: the keyboard of the right hand
 * over that of the left, an octave lower, so that the same degrees stand one over
 * the other; a thread joins the fingers where both hands meet.
 */
export function Board(props: { scale: Schemas["Scale"]; hands: Hands; sounding: number[] }) {
  const { scale: s, hands } = props;
  const right = keysOf(s, "right");
  const left = keysOf(s, "left");
  const { keys, whites, x } = layOut(right.map((k) => k.midi));
  const both = hands === "both";
  const showsRight = hands !== "left";
  const showsLeft = hands === "left" || both;
  const meetAt = (i: number) =>
    both
      ? s.meets.find(
          (m) => m.degree === right[i]?.degree && m.right === right[i]?.right && m.left === left[i]?.left,
        )
      : undefined;
  const leftTop = both ? tall + apart : 0;
  const centre = (midi: number) => x(midi) + (isBlack(midi) ? 9 : w / 2);
  const fingerY = (midi: number) => (isBlack(midi) ? 44 : 84);
  const height = both ? 2 * tall + apart : tall;
  const words = [
    showsRight && `right hand ${s.up.right.join(" ")}`,
    showsLeft && `left hand ${s.up.left.join(" ")}`,
    both && `meeting: ${s.meets.map((m) => `degree ${m.degree}, ${m.right} and ${m.left}`).join("; ")}`,
  ];
  return (
    <svg
      viewBox={`-2 -2 ${whites.length * w + 4} ${height + 4}`}
      className="w-full"
      role="img"
      aria-label={`${s.name}: ${words.filter(Boolean).join("; ")}`}
    >
      {showsRight && <Keyboard keys={keys} whites={whites} x={x} y={0} shift={0} sounding={props.sounding} />}
      {showsLeft && (
        <Keyboard keys={keys} whites={whites} x={x} y={leftTop} shift={-below} sounding={props.sounding} />
      )}
      {right.map((k, i) => {
        const meet = meetAt(i);
        return (
          meet && (
            <path
              key={k.midi}
              data-meet={meet.kind}
              d={`M${centre(k.midi)} ${fingerY(k.midi) + 10}V${leftTop + fingerY(k.midi) - 10}`}
              stroke="var(--color-focus)"
              strokeWidth={meet.kind === "same" ? 4 : 2}
              strokeDasharray={meet.kind === "same" ? undefined : "5 4"}
            />
          )
        );
      })}
      {showsRight &&
        right.map((k, i) => (
          <Finger key={k.midi} x={centre(k.midi)} y={fingerY(k.midi)} of={k} lit={Boolean(meetAt(i))} />
        ))}
      {showsLeft &&
        left.map((k, i) => (
          <Finger
            key={k.midi}
            x={centre(k.midi + below)}
            y={leftTop + fingerY(k.midi)}
            of={k}
            lit={Boolean(meetAt(i))}
          />
        ))}
    </svg>
  );
}

function Keyboard(props: {
  keys: number[];
  whites: number[];
  x: (midi: number) => number;
  y: number;
  shift: number;
  sounding: number[];
}) {
  return [...props.whites, ...props.keys.filter(isBlack)].map((k) => (
    <rect
      key={k}
      x={props.x(k)}
      y={props.y}
      width={isBlack(k) ? 18 : w}
      height={isBlack(k) ? 62 : tall}
      rx="3"
      fill={
        props.sounding.includes(k + props.shift) ? "var(--color-focus)" : isBlack(k) ? "#23302f" : "#fdf9f0"
      }
      stroke="#5a635c"
    />
  ));
}

/** A finger: a circle for the right hand, a square for the left. */
function Finger({ x, y, of: k, lit }: { x: number; y: number; of: Pressed; lit: boolean }) {
  const fill = lit ? "#b4530a" : "#1d6066";
  return (
    <g>
      {k.left ? (
        <rect x={x - 10} y={y - 10} width="20" height="20" rx="4" fill={fill} />
      ) : (
        <circle cx={x} cy={y} r="10.5" fill={fill} />
      )}
      <text x={x} y={y + 5} textAnchor="middle" fontSize="14" fontWeight="700" fill="#fdf9f0">
        {k.left ?? k.right}
      </text>
    </g>
  );
}
