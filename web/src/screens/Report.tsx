import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { queueQuery, reportQuery, useDropReport, usePublishReport, useWriteReport } from "../data/report";
import { firstName } from "../data/words";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { keep, say } from "../report/edits";
import { Sentence } from "../report/Sentence";

type Of = Schemas["Report"];
type Written = Schemas["WrittenReport"];

const purposes: Record<Written["purpose"], string> = {
  family: "for the family",
  exam: "for an exam",
  teacher: "for a new teacher",
};
const lengths: Record<Written["length"], string> = { short: "short", full: "full" };
const tones: Record<Written["tone"], string> = { warm: "warm", plain: "plain" };

/** A report as a letter: drafted from the facts, each sentence to be changed by a touch. */
export function Report() {
  const { ladder = "", report = "" } = useParams();
  const found = useQuery(reportQuery(ladder, report));
  if (found.isPending) return <Waiting />;
  if (!found.data) return <Problem error={found.error} again={() => found.refetch()} />;
  return <Letter key={report} of={found.data} ladder={ladder} />;
}

function Letter({ of: r, ladder }: { of: Of; ladder: string }) {
  const navigate = useNavigate();
  const write = useWriteReport(ladder, r.id);
  const publish = usePublishReport(ladder, r.id);
  const drop = useDropReport(ladder, () => navigate(`/progress/${ladder}`));
  const [sure, setSure] = useState(false);
  const queue = useQuery(queueQuery);
  const w = r.written;
  const busy = write.isPending || publish.isPending;
  const all = queue.data?.students ?? [];
  const here = all.findIndex((s) => s.ladder === ladder) + 1;
  const waiting = [...all.slice(here), ...all.slice(0, here)].filter(
    (s) => s.state !== "published" && s.ladder !== ladder,
  );
  const next = waiting[0];
  const on = () => next && navigate(`/report/${next.ladder}/${next.report || ulid()}`);
  return (
    <div className="mx-auto max-w-6xl px-4 py-3 sm:px-6">
      <Title of={`${r.student.name}, report`} />
      <p className="fine">
        <Link to={`/progress/${ladder}`} className="underline underline-offset-4">
          progress
        </Link>{" "}
        ·{" "}
        <Link to="/reports" className="underline underline-offset-4">
          all reports
        </Link>
        {waiting.length > 0 && ` · ${waiting.length} more to publish`}
      </p>
      <div className="mt-1 grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_17rem]">
        <article className="rounded-lg bg-sheet px-5 py-5 shadow-sm sm:px-9">
          <h1 className="break-words">{r.title}</h1>
          <p className="fine">{r.days}</p>
          <ul className="mt-3 divide-y divide-line/50">
            {r.sentences.map((s) => (
              <Sentence
                key={`${s.part} ${s.text}`}
                of={s}
                ladder={ladder}
                busy={busy}
                say={(text) => write.mutate(say(w, s, text))}
                keep={() => write.mutate(keep(w, s))}
              />
            ))}
          </ul>
          <Own key={w.own} own={w.own} keep={(own) => write.mutate({ ...w, own })} />
        </article>
        <aside className="grid content-start gap-3">
          <Pick
            label="Written"
            value={w.purpose}
            of={purposes}
            set={(purpose) => write.mutate({ ...w, purpose })}
          />
          <Pick
            label="Length"
            value={w.length}
            of={lengths}
            set={(length) => write.mutate({ ...w, length })}
          />
          <Pick label="Tone" value={w.tone} of={tones} set={(tone) => write.mutate({ ...w, tone })} />
          <label className="grid">
            <span className="fine">Looking back at</span>
            <select
              value={r.spans.find((s) => s.chosen)?.name ?? ""}
              onChange={(e) => {
                const s = r.spans.find((x) => x.name === e.target.value);
                if (s) write.mutate({ ...w, from: s.from, to: s.to });
              }}
            >
              {!r.spans.some((s) => s.chosen) && <option value="">{r.days}</option>}
              {r.spans.map((s) => (
                <option key={s.name} value={s.name}>
                  {s.name}
                </option>
              ))}
            </select>
          </label>
          <Refused error={write.error ?? publish.error ?? drop.error} />
          <button
            type="button"
            className="press press-main"
            disabled={busy}
            onClick={() => publish.mutate(r, { onSuccess: () => on() })}
          >
            {r.published ? "Publish again" : "Publish"}
            {next && `, then ${firstName(next.name)}`}
          </button>
          <p className="fine">
            {r.published ? `On the family’s page since ${r.publishedAt}. ` : "It goes on the family’s page. "}
            {r.recipients === 0
              ? "No address is known, so no message is sent."
              : r.recipients === 1
                ? "One address gets a message."
                : `${r.recipients} addresses get a message.`}
          </p>
          <a
            className="press"
            href={`/api/ladders/${ladder}/reports/${r.id}/pdf`}
            target="_blank"
            rel="noreferrer"
          >
            Print it
          </a>
          {next && (
            <button type="button" className="quiet" onClick={on}>
              Later; go on to {firstName(next.name)}
            </button>
          )}
          {w.version > 0 && (
            <button
              type="button"
              className="quiet"
              disabled={drop.isPending}
              onClick={() => (sure ? drop.mutate(r.id) : setSure(true))}
            >
              {sure ? "Delete it, from the family’s page as well" : "Delete this report"}
            </button>
          )}
        </aside>
      </div>
    </div>
  );
}

function Pick<K extends string>(props: {
  label: string;
  value: K;
  of: Record<K, string>;
  set: (value: K) => void;
}) {
  return (
    <label className="grid">
      <span className="fine">{props.label}</span>
      <select value={props.value} onChange={(e) => props.set(e.target.value as K)}>
        {Object.entries<string>(props.of).map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What the teacher adds in words of their own. */
function Own({ own, keep }: { own: string; keep: (own: string) => void }) {
  const [text, setText] = useState(own);
  return (
    <label className="mt-3 grid">
      <span className="fine">Your own words at the end</span>
      <textarea
        rows={3}
        maxLength={2000}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => text.trim() !== own && keep(text)}
        className="rounded border-[1.5px] border-line bg-paper px-3 py-2 text-[1.1rem] leading-snug"
      />
    </label>
  );
}
