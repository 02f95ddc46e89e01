import type { Schemas } from "../contract/client";

/** Someone at the keys, from the side, to scale: a centimetre is one unit of the drawing. */
export function SideView({ measures: m, seat }: { measures: Schemas["Measures"]; seat: Schemas["Seat"] }) {
  const floor = 132;
  const y = (height: number) => floor - height;
  const mats = seat.mats.reduce((n, t) => n + t, 0);
  const top = seat.bench + mats;
  const elbow = top + m.elbow;
  const hip = 46;
  const knee = hip + m.leg * 0.95;
  const shoulder = elbow + m.elbow * 1.25;
  const head = shoulder + m.elbow * 0.75;
  const keys = 112;
  let pile = seat.bench;
  const words = `The seat is ${top} centimetres high, the keys ${m.keyTop}; ${seat.platform > 0 ? `a platform of ${seat.platform} centimetres is under the feet` : "the feet stand on the floor"}.`;
  return (
    <svg viewBox="0 0 170 140" className="max-h-[25rem] w-full" role="img" aria-label={words}>
      <path d={`M4 ${floor}H166`} stroke="var(--color-line)" strokeWidth="1.2" />
      {/* keys */}
      <path
        d={`M${keys} ${y(m.keyTop)}h34v-3h16V${floor}h-4V${y(m.keyTop - 9)}h-46z`}
        fill="var(--color-fold)"
        stroke="var(--color-ink)"
        strokeWidth="0.9"
      />
      {/* bench and what lies on it */}
      <path
        d={`M24 ${y(seat.bench)}h36v4h-36zM28 ${y(seat.bench - 4)}V${floor}M56 ${y(seat.bench - 4)}V${floor}`}
        fill="var(--color-ahead)"
        stroke="var(--color-ahead)"
        strokeWidth="1.6"
      />
      {seat.mats.map((t, i) => {
        const at = pile;
        pile += t;
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: mats may be equal
            key={i}
            x="25"
            y={y(at + t)}
            width="34"
            height={t}
            fill="var(--color-paper)"
            stroke="var(--color-preview)"
            strokeWidth="1"
          />
        );
      })}
      {seat.platform > 0 && (
        <rect
          x={knee - 12}
          y={y(seat.platform)}
          width="32"
          height={seat.platform}
          fill="var(--color-paper)"
          stroke="var(--color-preview)"
          strokeWidth="1.2"
        />
      )}
      {/* the body: back, thigh, lower leg, foot, arm */}
      <g
        fill="none"
        stroke="var(--color-working)"
        strokeWidth="4.5"
        strokeLinecap="round"
        strokeLinejoin="round"
      >
        <path d={`M${hip} ${y(top + 5)}L${hip + 3} ${y(shoulder)}`} />
        <path d={`M${hip} ${y(top + 4)}H${knee}V${y(top - m.leg + 2)}h10`} />
        <path d={`M${hip + 3} ${y(shoulder)}L${hip + 10} ${y(elbow)}L${keys + 6} ${y(m.keyTop + 2.5)}`} />
        <circle cx={hip + 6} cy={y(head + m.elbow * 0.25)} r={5 + m.elbow * 0.2} />
      </g>
      {/* measures */}
      <g fontSize="5.4" fill="var(--color-ink)" className="figures">
        <path
          d={`M10 ${y(top)}V${floor}M7 ${y(top)}h6`}
          stroke="var(--color-soft)"
          strokeWidth="0.7"
          fill="none"
        />
        <text x="2" y={y(top) - 2.5}>
          {top} cm
        </text>
        <path
          d={`M${hip + 10} ${y(elbow)}H${keys + 34}`}
          stroke="var(--color-review)"
          strokeWidth="0.8"
          strokeDasharray="2.5 2"
          fill="none"
        />
        <text x={keys + 4} y={y(m.keyTop) + 6.4}>
          {m.keyTop} cm
        </text>
        {seat.platform > 0 && (
          <text x={knee + 1} y={y(seat.platform / 2) + 2}>
            {seat.platform}
          </text>
        )}
      </g>
    </svg>
  );
}
