import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { queueQuery } from "../data/report";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";

const states: Record<Schemas["QueuedReport"]["state"], [mark: string, words: string]> = {
  none: ["border-2 border-line", "no report yet"],
  draft: ["border-2 border-preview", "a draft"],
  published: ["bg-review", "published"],
};

/** The reports of this term, one student after another. */
export function Reports() {
  const queue = useQuery(queueQuery);
  if (queue.isPending) return <Waiting />;
  if (queue.error) return <Problem error={queue.error} again={() => queue.refetch()} />;
  const { sentence, students } = queue.data;
  const first = students.find((s) => s.state !== "published");
  return (
    <div className="mx-auto max-w-3xl px-4 py-4 sm:px-6">
      <Title of="Reports" />
      <h1 className="text-[1.6rem]">{sentence}</h1>
      <p className="fine">
        Each is drafted from what was entered: read it, change what you like, publish, and the next one opens.
      </p>
      {first && (
        <Link to={to(first)} className="press press-main mt-3">
          Begin with {first.name}
        </Link>
      )}
      <ul className="mt-4">
        {students.map((s) => (
          <li key={s.ladder} className="border-t border-line/60">
            <Link to={to(s)} className="flex min-h-touch items-center gap-3 py-1.5 hover:bg-fold">
              <i aria-hidden="true" className={`h-3.5 w-3.5 shrink-0 rounded-full ${states[s.state][0]}`} />
              <span className="min-w-0 flex-1 truncate">
                {s.name} <span className="fine">{s.instrument}</span>
              </span>
              <span className="fine shrink-0">{states[s.state][1]}</span>
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}

const to = (s: Schemas["QueuedReport"]) => `/report/${s.ladder}/${s.report || ulid()}`;
