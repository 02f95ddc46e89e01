import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useAtlas } from "../data/technique";
import { Refused } from "../parts/Problem";
import { cellWords } from "./words";

/** Who has which key, in which pass: a little staircase in every cell. */
export function Atlas(props: {
  instrument: string;
  only?: string;
  open: (ladder: string, exercise: string) => void;
}) {
  const [kind, setKind] = useState<string>();
  const atlas = useAtlas(props.instrument, kind);
  const a = atlas.data;
  const rows = a?.rows.filter((r) => !props.only || r.ladder === props.only) ?? [];
  return (
    <section aria-label="Atlas of keys">
      <div className="flex flex-wrap items-end justify-between gap-x-4 gap-y-1">
        <h2>{props.only ? "The keys" : (a?.sentence ?? "The keys")}</h2>
        {a && a.kinds.length > 1 && (
          <label className="flex items-center gap-2">
            <span className="fine">kind</span>
            <select value={a.kind} onChange={(e) => setKind(e.target.value)}>
              {a.kinds.map((k) => (
                <option key={k.id} value={k.id}>
                  {k.name}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      <Refused error={atlas.error} />
      {a && rows.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a wide table is scrolled by keys, too
        <div className="mt-2 overflow-x-auto" tabIndex={0}>
          <table className="w-full border-collapse">
            <thead>
              <tr>
                <th scope="col" className="fine text-left font-normal">
                  by fifths
                </th>
                {a.keys.map((k) => (
                  <th key={k} scope="col" className="min-w-12 px-1 font-head text-lg">
                    {k}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.ladder} className="border-t border-line/60">
                  <th scope="row" className="max-w-40 truncate pr-3 text-left font-normal">
                    {r.name}
                  </th>
                  {r.cells.map((c) => (
                    <td key={c.key} className="p-0.5 text-center">
                      <button
                        type="button"
                        className="inline-flex min-h-touch w-full items-center justify-center rounded hover:bg-fold"
                        aria-label={`${r.name}, ${c.key}: ${cellWords(c, a.passes)}`}
                        title={cellWords(c, a.passes)}
                        onClick={() => props.open(r.ladder, c.exercise)}
                      >
                        <Steps cell={c} of={a.passes.length} />
                      </button>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <p className="fine mt-1">
            Passes: {a.passes.map((p, i) => `${i + 1}. ${p}`).join("; ")}. Filled is through, outlined is in
            work.
          </p>
        </div>
      )}
    </section>
  );
}

/** The passes of a key as steps that rise. */
function Steps({ cell: c, of }: { cell: Schemas["AtlasCell"]; of: number }) {
  const w = 36 / of;
  return (
    <svg viewBox="0 0 38 26" width="38" height="26" aria-hidden="true">
      {Array.from({ length: of }, (_, i) => {
        const height = 5 + (19 * (i + 1)) / of;
        const working = i + 1 === c.working;
        return (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: passes in their order
            key={i}
            x={1 + i * w}
            y={25 - height}
            width={w - 1}
            height={height}
            fill={i < c.through ? "var(--color-working)" : working ? "var(--color-reach)" : "none"}
            stroke={working || i < c.through ? "var(--color-working)" : "var(--color-line)"}
            strokeWidth={working ? 2 : 1}
          />
        );
      })}
    </svg>
  );
}
