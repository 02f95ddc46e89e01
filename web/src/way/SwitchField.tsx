import type { Schemas } from "../contract/client";
import type { Switch, Way } from "./switches";

/** One switch: a number with its unit, a choice, or a yes. */
export function SwitchField(props: {
  field: Switch;
  way: Way;
  differs: boolean;
  /** Between which numbers it can be set, as the way has them. */
  bound?: Schemas["WayBound"];
  change: (way: Way) => void;
}) {
  const { field, way, change } = props;
  const id = `way-${field.key}`;
  const set = (value: unknown) => change({ ...way, [field.key]: value });
  return (
    <div className="flex min-h-touch flex-wrap items-center justify-between gap-x-3">
      <label htmlFor={id} className={props.differs ? "font-semibold" : ""}>
        {field.name}
        {props.differs && <span className="fine"> · changed</span>}
      </label>
      {field.kind === "number" && (
        <span className="flex items-center gap-2">
          <input
            id={id}
            type="number"
            className="figures w-24 text-right"
            min={props.bound && round(props.bound.least * (field.scale ?? 1))}
            max={props.bound && round(props.bound.most * (field.scale ?? 1))}
            step={field.step}
            value={round(Number(way[field.key]) * (field.scale ?? 1))}
            onChange={(e) => set(Number(e.target.value) / (field.scale ?? 1))}
          />
          <span className="fine w-14">{field.unit}</span>
        </span>
      )}
      {field.kind === "choice" && (
        <select id={id} value={String(way[field.key])} onChange={(e) => set(e.target.value)}>
          {Object.entries(field.choices).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      )}
      {field.kind === "yes" && (
        <span className="flex items-center gap-2">
          <input
            id={id}
            type="checkbox"
            className="size-5 min-h-0 accent-working"
            checked={Boolean(way[field.key])}
            onChange={(e) => set(e.target.checked)}
          />
          <span className="fine">{field.says}</span>
        </span>
      )}
    </div>
  );
}

const round = (n: number) => Math.round(n * 100) / 100;
