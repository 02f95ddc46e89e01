import type { Schemas } from "../contract/client";
import { Field } from "../parts/Sheet";

type Measures = Schemas["Measures"];

const lengths: { key: "keyTop" | "elbow" | "leg" | "benchLow" | "benchHigh"; name: string; how: string }[] = [
  { key: "keyTop", name: "Top of the white keys", how: "from the floor" },
  { key: "elbow", name: "Elbow above the seat", how: "sitting, the upper arm hanging" },
  { key: "leg", name: "Lower leg with the shoe", how: "from the hollow of the knee to the sole" },
  { key: "benchLow", name: "Bench at its lowest", how: "from the floor" },
  { key: "benchHigh", name: "Bench at its highest", how: "from the floor" },
];

/** The measures in centimetres, the lean of the forearm, and what is at hand to lay on the seat. */
export function MeasureForm({ measures: m, change }: { measures: Measures; change: (m: Measures) => void }) {
  const mats = m.mats;
  const setMat = (i: number, mat: Measures["mats"][number]) =>
    change({ ...m, mats: mats.map((x, k) => (k === i ? mat : x)) });
  return (
    <div className="grid gap-3">
      {lengths.map((l) => (
        <Field key={l.key} label={`${l.name} (cm, ${l.how})`}>
          <input
            type="number"
            step="0.5"
            inputMode="decimal"
            value={m[l.key]}
            onChange={(e) => change({ ...m, [l.key]: e.target.valueAsNumber || 0 })}
          />
        </Field>
      ))}
      <Field label="The forearm lies">
        <select value={m.lean} onChange={(e) => change({ ...m, lean: e.target.value as Measures["lean"] })}>
          <option value="level">level</option>
          <option value="above">slightly above the keys</option>
          <option value="below">slightly below the keys</option>
        </select>
      </Field>
      <fieldset className="m-0 border-0 p-0">
        <legend className="fine">At hand to lay on the seat</legend>
        <ul>
          {mats.map((mat, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: mats may be equal
            <li key={i} className="mt-1 flex flex-wrap items-center gap-2">
              <input
                type="number"
                step="0.5"
                aria-label={`Thickness of piece ${i + 1} in centimetres`}
                value={mat.thickness}
                onChange={(e) => setMat(i, { ...mat, thickness: e.target.valueAsNumber || 0 })}
                className="w-24"
              />
              <select
                aria-label={`What piece ${i + 1} is`}
                value={mat.soft ? "soft" : "firm"}
                onChange={(e) => setMat(i, { ...mat, soft: e.target.value === "soft" })}
              >
                <option value="firm">firm mat</option>
                <option value="soft">cushion</option>
              </select>
              <button
                type="button"
                className="quiet"
                onClick={() => change({ ...m, mats: mats.filter((_, k) => k !== i) })}
              >
                Take away
                <span className="sr-only"> piece {i + 1}</span>
              </button>
            </li>
          ))}
        </ul>
        {mats.length < 8 && (
          <button
            type="button"
            className="quiet -ml-2"
            onClick={() => change({ ...m, mats: [...mats, { thickness: 2, soft: false }] })}
          >
            Add a mat or a cushion
          </button>
        )}
      </fieldset>
    </div>
  );
}
