import { type Rough, whenNames } from "./when";

/** Asks about when. */
export function When(props: { value: Rough; onChange: (w: Rough) => void; label: string }) {
  return (
    <select
      aria-label={props.label}
      value={props.value}
      onChange={(e) => props.onChange(e.target.value as Rough)}
    >
      {Object.entries(whenNames).map(([key, name]) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
    </select>
  );
}
