import type { Schemas } from "../contract/client";

/** Which finger pattern the key needs on each string. */
export function PatternTable({ patterns }: { patterns: Schemas["StringPattern"][] }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a wide table is scrolled by keys, too
    <section className="mt-3 overflow-x-auto" aria-label="Finger patterns" tabIndex={0}>
      <table className="w-full">
        <tbody>
          {patterns.map((p) => (
            <tr key={p.string} className="border-t border-line/60">
              <th scope="row" className="w-14 font-head text-lg">
                {p.name}
              </th>
              <td className="figures py-1 whitespace-nowrap">
                {p.stops.map((s) => (
                  <span key={s.above} className="mr-2 inline-flex items-baseline gap-0.5">
                    <strong className={s.extended ? "text-focus" : "text-working"}>{s.finger}</strong>
                    <span className="fine">{s.name}</span>
                  </span>
                ))}
              </td>
              <td className="fine">
                {p.words}
                {p.moves > 0 && `; the hand moves ${p.moves === 1 ? "once" : `${p.moves} times`}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
