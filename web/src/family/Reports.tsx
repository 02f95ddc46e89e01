import type { Schemas } from "../contract/client";
import { useSay } from "./say";

/** What the teacher has written about the term; the latest is open. */
export function Reports({ reports, token }: { reports: Schemas["FamilyReport"][]; token: string }) {
  const { say } = useSay();
  if (reports.length === 0) return null;
  return (
    <section aria-label={say("reports")} className="mt-8 border-t border-line pt-3">
      {reports.map((r, i) => (
        <details key={r.id} open={i === 0}>
          <summary className="min-h-touch cursor-pointer py-2.5">
            <strong className="font-head text-lg">{r.title}</strong>{" "}
            <span className="fine">
              {r.days} · {r.published}
            </span>
          </summary>
          {r.lines.map((l) => (
            <p key={l} className="mt-2 text-lg leading-snug">
              {l}
            </p>
          ))}
          <p className="mt-3">
            <a
              className="press"
              href={`/api/family/${token}/reports/${r.id}`}
              target="_blank"
              rel="noreferrer"
            >
              {say("report.paper")}
            </a>
          </p>
        </details>
      ))}
    </section>
  );
}
