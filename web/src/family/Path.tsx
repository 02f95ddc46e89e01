import type { Schemas } from "../contract/client";
import { useSay } from "./say";

const stride = 46;

/** The way so far, from the ground up: a rung for every piece that was learned, the working ones at the top. */
export function Path({ path, name }: { path: Schemas["FamilyPage"]["path"]; name: string }) {
  const { say } = useSay();
  const learned = path.filter((p) => p.state === "learned");
  const shown = [...learned.slice(-12), ...path.filter((p) => p.state === "working")].reverse();
  const height = shown.length * stride + 20;
  const hidden = learned.length - Math.min(12, learned.length);
  return (
    <section aria-label={say("path")} className="mt-10">
      <h2>
        {learned.length === 0
          ? say("path.first", { name })
          : say(learned.length === 1 ? "path.one" : "path.many", { name, n: learned.length })}
      </h2>
      <div className="relative mt-3" style={{ height }}>
        <svg width="96" height={height} className="absolute left-0 top-0" aria-hidden="true">
          <path
            d={`M18 ${height}V6M78 ${height}V6`}
            stroke="var(--color-line)"
            strokeWidth="5"
            strokeLinecap="round"
          />
          {shown.map((p, i) => (
            <path
              key={p.title}
              d={`M18 ${i * stride + 26}H78`}
              stroke={p.state === "working" ? "var(--color-working)" : "var(--color-review)"}
              strokeWidth={p.state === "working" ? 7 : 5}
              strokeDasharray={p.state === "working" ? "9 6" : undefined}
            />
          ))}
        </svg>
        <ol reversed className="ml-28">
          {shown.map((p) => (
            <li key={p.title} className="leading-tight" style={{ height: stride, paddingTop: 6 }}>
              <strong className="block truncate">{p.title}</strong>
              <span className="fine">{p.words}</span>
            </li>
          ))}
        </ol>
      </div>
      {hidden > 0 && <p className="fine ml-28">{say("path.below", { n: hidden })}</p>}
    </section>
  );
}
