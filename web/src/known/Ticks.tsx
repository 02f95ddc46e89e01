import type { Schemas } from "../contract/client";

/** Things that are ticked by one touch each. */
export function Ticks(props: {
  list: Schemas["KnownChoice"][];
  picked: string[];
  onChange: (ids: string[]) => void;
  label: string;
}) {
  return (
    <ul className="flex flex-wrap gap-1" aria-label={props.label}>
      {props.list.map((x) => (
        <li key={x.id}>
          <button
            type="button"
            disabled={x.known}
            aria-pressed={x.known || props.picked.includes(x.id)}
            onClick={() =>
              props.onChange(
                props.picked.includes(x.id)
                  ? props.picked.filter((p) => p !== x.id)
                  : [...props.picked, x.id],
              )
            }
            className="min-h-touch min-w-touch rounded border border-line px-2 text-[0.9rem] hover:bg-fold disabled:text-soft aria-pressed:border-review aria-pressed:bg-review aria-pressed:text-on-working disabled:aria-pressed:bg-fold disabled:aria-pressed:text-soft"
          >
            {x.name}
          </button>
        </li>
      ))}
    </ul>
  );
}
