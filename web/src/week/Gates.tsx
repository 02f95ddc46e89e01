import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../data/useLessonAppend";
import { gateNames } from "./kinds";

/** Which hand may play each working piece at home, until it is set otherwise. */
export function Gates({ week, append }: { week: Schemas["Week"]; append: Append }) {
  if (week.gates.length === 0) return null;
  return (
    <section aria-label="Hands">
      <h2 className="text-lg">Hands</h2>
      <ul>
        {week.gates.map((g) => (
          <li
            key={g.material}
            className="flex flex-wrap items-center justify-between gap-x-3 border-b border-line/60 py-1.5"
          >
            <span className="min-w-0 leading-tight">
              {g.title}
              <span className="fine block">{g.hand ? `now the ${g.hand} only` : "now as written"}</span>
            </span>
            <GateChoice material={g.material} title={g.title} gate={g.gate} append={append} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The gate of one piece. */
export function GateChoice(props: {
  material: string;
  title: string;
  gate: Schemas["Gate"];
  append: Append;
}) {
  return (
    <select
      aria-label={`Hands at home for ${props.title}`}
      value={props.gate}
      onChange={(e) =>
        props.append.mutate([
          entry("gate", { material: props.material, gate: e.target.value as Schemas["Gate"] }),
        ])
      }
    >
      {Object.entries(gateNames).map(([gate, name]) => (
        <option key={gate} value={gate}>
          {name}
        </option>
      ))}
    </select>
  );
}
