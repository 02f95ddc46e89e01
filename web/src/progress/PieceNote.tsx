import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { longDay } from "../data/words";

/** One piece of the picture, with the lessons that it comes from. */
export function PieceNote({ piece: x, ladder }: { piece: Schemas["ProgressPiece"]; ladder: string }) {
  return (
    <section aria-label={x.title} className="border-l-4 border-working pl-3">
      <h3>
        <Link to={`/piece/${x.material}?ladder=${ladder}`} className="hover:underline">
          {x.title}
        </Link>
      </h3>
      <p className="fine">{x.weeks}</p>
      <ul className="mt-1">
        <On day={x.from} ladder={ladder} what="Begun" />
        {x.to && <On day={x.to} ladder={ladder} what="Cleared" />}
        {x.polished && <On day={x.polished} ladder={ladder} what="Ready to be performed" />}
        {x.heard.slice(-4).map((h) => (
          <On key={h.day} day={h.day} ladder={ladder} what={h.solid ? "Heard, solid" : "Heard, shaky"} />
        ))}
      </ul>
    </section>
  );
}

function On({ day, ladder, what }: { day: string; ladder: string; what: string }) {
  return (
    <li>
      <Link to={`/past/${ladder}?day=${day}`} className="quiet -ml-2.5 text-[0.92rem]">
        {what}: {longDay(day)}
      </Link>
    </li>
  );
}
