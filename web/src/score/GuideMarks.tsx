import type { Schemas } from "../contract/client";
import type { Places } from "./engraver";

/** A ring round each note that the student does not know, with the guide note it is found from. */
export function GuideMarks({ piece, places }: { piece: Schemas["Piece"]; places: Places }) {
  return piece.lines.flatMap((l) =>
    l.guides.flatMap((g) =>
      g.notes.map((n, i) => {
        const b = places.note(n.bar, l.staff, n.at, n.pitch);
        if (!b) return null;
        const x = b.x + b.width / 2;
        const y = b.y + b.height / 2;
        const staff = places.staff(n.bar, l.staff);
        return (
          <g key={`${l.staff} ${n.bar} ${n.at} ${n.pitch}`} data-guide={g.pitch}>
            <ellipse
              cx={x}
              cy={y}
              rx={b.width * 0.95}
              ry={b.height * 0.95}
              fill="none"
              stroke="var(--color-preview)"
              strokeWidth="2"
            />
            {i === 0 && staff && (
              <text
                x={x}
                y={Math.max(staff.y + staff.height + 24, y + b.height + 16)}
                textAnchor="middle"
                fontSize="12.5"
                fontWeight="600"
                fill="var(--color-preview)"
              >
                {g.words.replace(/^.* is an? /, "")}
              </text>
            )}
          </g>
        );
      }),
    ),
  );
}

/** The name of each note under it, in the studio's words. */
export function NoteNames({ piece, places }: { piece: Schemas["Piece"]; places: Places }) {
  return piece.lines.flatMap((l) =>
    l.fingers.map((n) => {
      const b = places.note(n.bar, l.staff, n.at, n.pitch);
      const staff = places.staff(n.bar, l.staff);
      return (
        b &&
        staff && (
          <text
            key={`${l.staff} ${n.bar} ${n.at} ${n.pitch}`}
            x={b.x + b.width / 2}
            y={Math.max(staff.y + staff.height + 24, b.y + b.height + 17)}
            textAnchor="middle"
            fontSize="14"
            fontWeight="650"
            fill="var(--color-working)"
          >
            {n.name}
          </text>
        )
      );
    }),
  );
}
