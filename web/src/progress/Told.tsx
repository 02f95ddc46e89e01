import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { longDay } from "../data/words";
import { Why } from "../parts/Why";

/** A sentence with the entries that it comes from. */
export function Told({ line, ladder }: { line: Schemas["ProgressLine"]; ladder: string }) {
  return (
    <>
      {line.text}
      {line.entries.length > 0 && (
        <span className="-my-3 inline-block align-middle">
          <Why label={line.text} shown={<span className="fine font-normal">why?</span>}>
            <ul className="grid gap-2">
              {line.entries.map((e) => (
                <li key={e.id} className="leading-tight">
                  {e.text}
                  <Link
                    to={`/past/${ladder}?day=${e.day}`}
                    className="fine block underline decoration-line underline-offset-4"
                  >
                    {longDay(e.day)}
                  </Link>
                </li>
              ))}
            </ul>
          </Why>
        </span>
      )}
    </>
  );
}
