import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import { activityNow } from "../data/meeting";
import type { Append } from "../data/useLessonAppend";
import { Attempt } from "../meeting/Activity";
import { SegmentMark } from "../plan/SegmentMark";
import { Questions } from "../plan/SegmentRow";

/** The segment of the moment: what is done in it, what to ask first, and what to note. */
export function Moment(props: {
  segment: Schemas["PlanSegment"];
  ladder: string;
  append: Append;
  /** What was noted and waits on this device. */
  unsent: Schemas["Entry"][];
  next: () => void;
}) {
  const { segment: s, append } = props;
  const activity = /^activity (\S+) (\d+)$/.exec(s.id);
  return (
    <section aria-label="Now" className="rounded-lg border border-line bg-sheet px-4 py-3">
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <h2 className="flex items-center gap-2 text-[1.3rem]">
          <SegmentMark layer={s.layer} />
          {s.title}
          <span className="fine figures font-body font-normal">
            {s.minutes} {s.minutes === 1 ? "minute" : "minutes"}
          </span>
        </h2>
        <span className="flex gap-2">
          {activity && (
            <button
              type="button"
              className="press"
              onClick={() => {
                append.mutate([
                  entry("activity", { goal: activity[1], step: Number(activity[2]), text: s.title }),
                ]);
                props.next();
              }}
            >
              Done
            </button>
          )}
          {s.fault && (
            <>
              <button
                type="button"
                className="press"
                onClick={() => {
                  append.mutate([entry("faultGone", { focus: s.fault })]);
                  props.next();
                }}
              >
                It is gone
              </button>
              <button
                type="button"
                className="press"
                onClick={() => {
                  append.mutate([entry("faultSeen", { focus: s.fault })]);
                  props.next();
                }}
              >
                Still there
              </button>
            </>
          )}
          {s.kind === "begin" && (
            <button
              type="button"
              className="press press-main"
              onClick={() => {
                append.mutate([
                  entry(
                    "assigned",
                    s.exercise ? { material: s.material, exercise: s.exercise } : { material: s.material },
                  ),
                ]);
                props.next();
              }}
            >
              Mark as begun
            </button>
          )}
          <button type="button" className="press" onClick={props.next}>
            Next
          </button>
        </span>
      </div>
      {s.kind !== "working" && s.kind !== "technique" && s.kind !== "reading" && (
        <ul>
          {s.words.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      )}
      {s.kind === "posture" && (
        <Link className="quiet -ml-2" to={`/setup/${props.ladder}`}>
          Bench, feet and hands
        </Link>
      )}
      {s.activity && <Stair activity={s.activity} append={append} unsent={props.unsent} />}
      <Questions list={s.questions} />
      {s.kind === "closing" && <WentWell append={append} />}
    </section>
  );
}

/** One step of ear or rhythm: played by the device, each outcome one touch, harder or easier by what came. */
function Stair(props: { activity: Schemas["MeetingActivity"]; append: Append; unsent: Schemas["Entry"][] }) {
  const { level, came, last } = activityNow(props.activity, props.unsent);
  if (level === 0) return <p className="fine mt-2">Enough for today: {came.join("; ")}.</p>;
  return (
    <div className="mt-2">
      <Attempt activity={props.activity} level={level} came={came} last={last} append={props.append} />
    </div>
  );
}

/** What went well, in the student's own words. */
function WentWell({ append }: { append: Append }) {
  const [said, setSaid] = useState(0);
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const text = String(new FormData(form).get("text") ?? "").trim();
    if (!text) return;
    append.mutate([entry("wentWell", { text })]);
    setSaid(said + 1);
    form.reset();
  };
  return (
    <form onSubmit={send} className="mt-2 flex flex-wrap items-end gap-2">
      <label className="flex min-w-60 flex-1 flex-col gap-1">
        <span className="fine">{said === 0 ? "What went well?" : "And what else went well?"}</span>
        <input name="text" maxLength={300} autoComplete="off" />
      </label>
      <button type="submit" className="press press-main">
        Keep it
      </button>
    </form>
  );
}
