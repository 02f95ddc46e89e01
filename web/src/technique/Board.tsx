import type { Schemas } from "../contract/client";
import { isBlack, layOut, w } from "../piece/keyboard";
import { Finger, Keys, tall } from "./KeyDrawing";
import { type Hands, keysOf } from "./notes";

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
      {showsRight && <Keys keys={keys} whites={whites} x={x} y={0} shift={0} sounding={props.sounding} />}
      {showsLeft && (
        <Keys keys={keys} whites={whites} x={x} y={leftTop} shift={-below} sounding={props.sounding} />
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
          <Finger
            key={k.midi}
            x={centre(k.midi)}
            y={fingerY(k.midi)}
            left={false}
            finger={k.right}
            lit={Boolean(meetAt(i))}
          />
        ))}
      {showsLeft &&
        left.map((k, i) => (
          <Finger
            key={k.midi}
            x={centre(k.midi + below)}
            y={leftTop + fingerY(k.midi)}
            left
            finger={k.left}
            lit={Boolean(meetAt(i))}
          />
        ))}
    </svg>
  );
}
