import { useState } from "react";
import type { Schemas } from "../contract/client";
import { Field } from "../parts/Sheet";

type Measures = Schemas["Measures"];

const lengths: {
  key: "keyTop" | "elbow" | "leg" | "benchLow" | "benchHigh";
  name: string;
  how: string;
  /** Only where one sits at keys. */
  keys?: boolean;
}[] = [
  { key: "keyTop", name: "Top of the white keys", how: "from the floor", keys: true },
  { key: "elbow", name: "Elbow above the seat", how: "sitting, the upper arm hanging", keys: true },
  { key: "leg", name: "Lower leg with the shoe", how: "from the hollow of the knee to the sole" },
  { key: "benchLow", name: "Bench at its lowest", how: "from the floor" },
  { key: "benchHigh", name: "Bench at its highest", how: "from the floor" },
];

/** The measures in centimetres, the lean of the forearm, and what is at hand to lay on the seat. */
export function MeasureForm(props: {
  measures: Partial<Measures>;
  asked: Schemas["Setup"]["asked"];
  /** What the studio's own bench and keys measure; they are not asked again. */
  bench: Schemas["Bench"] | undefined;
  change: (m: Partial<Measures>) => void;
}) {
  const { measures: m, asked, bench, change } = props;
  const [again, setAgain] = useState(false);
  const mats = m.mats ?? [];
  const setMat = (i: number, mat: Measures["mats"][number]) =>
    change({ ...m, mats: mats.map((x, k) => (k === i ? mat : x)) });
  const known = bench && !again;
  const wanted = lengths.filter(
    (l) => (asked === "keys" || !l.keys) && !(known && (l.key === "keyTop" || l.key.startsWith("bench"))),
  );
  return (
    <div className="grid gap-3">
      {known && (
        <p className="fine">
          {asked === "keys" ? `Studio: keys ${bench.keyTop} cm, bench ` : "Studio: chair "}
          {bench.benchLow} to {bench.benchHigh} cm.{" "}
          <button type="button" className="quiet" onClick={() => setAgain(true)}>
            Measure again
          </button>
        </p>
      )}
      {wanted.map((l) => (
        <Field
          key={l.key}
          label={`${asked === "keys" ? l.name : l.name.replace("Bench", "Chair")} (cm, ${l.how})`}
        >
          <input
            type="number"
            step="0.5"
            inputMode="decimal"
            value={m[l.key] ?? ""}
            onChange={(e) => {
              const value = e.target.valueAsNumber;
              change({ ...m, [l.key]: Number.isNaN(value) ? undefined : value });
            }}
          />
        </Field>
      ))}
      {asked === "keys" && (
        <>
          <Field label="The forearm lies">
            <select
              value={m.lean}
              onChange={(e) => change({ ...m, lean: e.target.value as Measures["lean"] })}
            >
              <option value="level">level</option>
              <option value="above">slightly above the keys</option>
              <option value="below">slightly below the keys</option>
            </select>
          </Field>
          <label className="flex min-h-touch items-center gap-2">
            <input
              type="checkbox"
              checked={m.pedal ?? false}
              onChange={(e) => change({ ...m, pedal: e.target.checked })}
            />
            The pedal is used
          </label>
        </>
      )}
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
                Remove
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
