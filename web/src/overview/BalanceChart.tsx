import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { useBalance } from "../data/lesson";
import { firstName } from "../data/words";

const side = 260;
const edge = 34;

/**
 * Practice against enjoyment, for the teacher only: each student is a cross, as
 * wide and as tall as we are unsure.
 */
export function BalanceChart() {
  const balance = useBalance();
  const [picked, setPicked] = useState<string>();
  if (!balance.data || balance.data.length === 0) return null;
  const list = balance.data;
  const one = list.find((b) => b.ladder === picked) ?? list[0];
  if (!one) return null;
  return (
    <section aria-label="Practice against enjoyment" className="mt-8">
      <div className="flex flex-wrap gap-x-8 gap-y-3">
        <svg
          viewBox={`0 0 ${side + edge} ${side + edge}`}
          className="w-full max-w-80 shrink-0"
          role="img"
          aria-label={list.map((b) => `${b.name}: ${b.words}`).join(" ")}
        >
          <rect x={edge} y="0" width={side} height={side} fill="var(--color-sheet)" />
          {/* Practises, and does not seem to enjoy it: the corner to look at. */}
          <rect
            x={edge + side * 0.6}
            y={side / 2}
            width={side * 0.4}
            height={side / 2}
            fill="var(--color-tint-5)"
          />
          <text x={edge + side * 0.8} y={side - 8} textAnchor="middle" className="fill-soft text-[11px]">
            the quiet ones
          </text>
          <path
            d={`M${edge} 0V${side}H${edge + side}`}
            fill="none"
            stroke="var(--color-line)"
            strokeWidth="1.5"
          />
          <text x={edge + side / 2} y={side + 24} textAnchor="middle" className="fill-ink text-[13px]">
            practises →
          </text>
          <text
            x="14"
            y={side / 2}
            textAnchor="middle"
            transform={`rotate(-90 14 ${side / 2})`}
            className="fill-ink text-[13px]"
          >
            enjoys →
          </text>
          {[...list].reverse().map((b) => (
            <Cross key={b.ladder} of={b} picked={b === one} />
          ))}
        </svg>
        <div className="min-w-64 flex-1">
          <h2>Practice against enjoyment</h2>
          <p className="fine">For your eyes only; estimates from what came from home in eight weeks.</p>
          <ul className="mt-2 flex flex-wrap gap-1.5">
            {list.map((b) => (
              <li key={b.ladder}>
                <button
                  type="button"
                  aria-pressed={b === one}
                  className="press border-line px-3 aria-pressed:border-ink aria-pressed:bg-fold aria-pressed:font-semibold"
                  onClick={() => setPicked(b.ladder)}
                >
                  {firstName(b.name)}
                </button>
              </li>
            ))}
          </ul>
          <p className="say mt-3">
            {firstName(one.name)}: {one.words}
          </p>
          <p className="fine mt-1">{one.why}</p>
          <p className="mt-1">
            <Link to={`/ladder/${one.ladder}`} className="quiet -ml-2">
              {firstName(one.name)}’s ladder
            </Link>
          </p>
        </div>
      </div>
    </section>
  );
}

/** A student: the lines reach as far as four times of five. */
function Cross({ of: b, picked }: { of: Schemas["Balance"]; picked: boolean }) {
  const x = (share: number) => edge + share * side;
  const y = (share: number) => (1 - share) * side;
  const [cx, cy] = [x(b.practice.middle), y(b.enjoyment.middle)];
  const colour = b.kind === "quiet" || b.kind === "away" ? "var(--color-cliff)" : "var(--color-working)";
  return (
    <g stroke={colour} opacity={picked ? 1 : 0.55}>
      <path
        d={`M${x(b.practice.low)} ${cy}H${x(b.practice.high)}M${cx} ${y(b.enjoyment.low)}V${y(b.enjoyment.high)}`}
        strokeWidth={picked ? 2.5 : 1.2}
      />
      <circle
        cx={cx}
        cy={cy}
        r={picked ? 6 : 4}
        fill={picked ? colour : "var(--color-sheet)"}
        strokeWidth="2"
      />
      {picked && (
        <text
          x={b.practice.middle > 0.7 ? cx - 9 : cx + 9}
          y={cy - 8}
          textAnchor={b.practice.middle > 0.7 ? "end" : "start"}
          stroke="none"
          className="fill-ink text-[13px] font-semibold"
        >
          {firstName(b.name)}
        </text>
      )}
    </g>
  );
}
