import type { Schemas } from "../contract/client";
import { isBlack, layOut, w } from "../piece/keyboard";
import { Finger, Keys, tall } from "./KeyDrawing";
import { boards, firstOf, groupsOf, meetings } from "./sounding";

type Note = Schemas["ExerciseNote"];

/** Between the keyboard of the right hand and that of the left; threads run through it. */
const apart = 40;

/**
 * The keys under each hand with its fingers, the right hand over the left, so that
 * notes that sound at once stand one over the other; a thread joins those in
 * which both hands meet. A scale that is shared between the hands lies on one board.
 */
export function HandBoards(props: { exercise: Schemas["Exercise"]; sounding: Note[] }) {
  const { right, left, atOnce, shared } = boards(props.exercise.notes);
  const low = (list: Note[]) => Math.min(...list.map((n) => n.midi));
  const shift = right.length > 0 && left.length > 0 && !shared ? low(right) - low(left) : 0;
  const rightKeys = firstOf(right, (n) => n.midi);
  const leftKeys = firstOf(left, (n) => n.midi);
  const two = right.length > 0 && left.length > 0 && !shared;
  const { keys, whites, x } = layOut([
    ...rightKeys.map((n) => n.midi),
    ...leftKeys.map((n) => n.midi + shift),
  ]);
  const leftTop = two ? tall + apart : 0;
  const centre = (midi: number) => x(midi) + (isBlack(midi) ? 9 : w / 2);
  const fingerY = (midi: number) => (isBlack(midi) ? 44 : 84);
  const meets = atOnce ? meetings(right, left) : [];
  const lit = (n: Note) => meets.some((m) => m.right.midi === n.midi || m.left.midi === n.midi);
  const on = (hand: string) => props.sounding.filter((n) => shared || n.hand === hand).map((n) => n.midi);
  const words = [
    right.length > 0 && `right hand ${rightKeys.map((n) => `${n.name} ${n.finger}`).join(", ")}`,
    left.length > 0 && `left hand ${leftKeys.map((n) => `${n.name} ${n.finger}`).join(", ")}`,
    meets.length > 0 &&
      `meeting on ${meets.map((m) => `${m.right.name} with ${m.right.finger} and ${m.left.finger}`).join(", ")}`,
  ];
  return (
    <svg
      viewBox={`-2 -2 ${whites.length * w + 4} ${(two ? 2 * tall + apart : tall) + 4}`}
      className="max-h-[22rem] w-full"
      role="img"
      aria-label={words.filter(Boolean).join("; ")}
    >
      {(right.length > 0 || shared) && (
        <Keys keys={keys} whites={whites} x={x} y={0} shift={0} sounding={on("right")} />
      )}
      {left.length > 0 && !shared && (
        <Keys keys={keys} whites={whites} x={x} y={leftTop} shift={-shift} sounding={on("left")} />
      )}
      <Groups keys={rightKeys} x={x} shift={0} y={0} />
      <Groups keys={leftKeys} x={x} shift={shift} y={leftTop} />
      {meets.map((m) => (
        <path
          key={`${m.right.midi} ${m.left.midi}`}
          data-meet={m.right.meet}
          d={`M${centre(m.right.midi)} ${fingerY(m.right.midi) + 10}L${centre(m.left.midi + shift)} ${leftTop + fingerY(m.left.midi) - 10}`}
          stroke="var(--color-focus)"
          strokeWidth={m.right.meet === "same" ? 4 : 2}
          strokeDasharray={m.right.meet === "same" ? undefined : "5 4"}
        />
      ))}
      {rightKeys.map((n) => (
        <Finger
          key={n.midi}
          x={centre(n.midi)}
          y={fingerY(n.midi)}
          left={n.hand === "left"}
          finger={n.finger}
          lit={lit(n)}
        />
      ))}
      {leftKeys.map((n) => (
        <Finger
          key={n.midi}
          x={centre(n.midi + shift)}
          y={leftTop + fingerY(n.midi)}
          left={n.hand === "left"}
          finger={n.finger}
          lit={lit(n)}
        />
      ))}
    </svg>
  );
}

/** A line under each group of fingers: single under three, double under four. */
function Groups(props: { keys: Note[]; x: (midi: number) => number; shift: number; y: number }) {
  return groupsOf(props.keys).map(({ group, keys }) => {
    const at = keys.map((n) => n.midi + props.shift);
    const wide = (midi: number) => (isBlack(midi) ? 18 : w);
    const from = Math.min(...at.map((m) => props.x(m))) + 3;
    const to = Math.max(...at.map((m) => props.x(m) + wide(m))) - 3;
    return (
      <path
        key={at[0]}
        data-group={group}
        d={
          group === 3 ? `M${from} ${tall - 6}H${to}` : `M${from} ${tall - 8}H${to}M${from} ${tall - 4}H${to}`
        }
        transform={`translate(0 ${props.y})`}
        stroke={group === 3 ? "#b4530a" : "#1d6066"}
        strokeWidth={group === 3 ? 3 : 1.6}
      />
    );
  });
}
