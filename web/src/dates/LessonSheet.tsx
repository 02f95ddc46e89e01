import { type FormEvent, useState } from "react";
import { Link } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useChangeLesson, useFree } from "../data/dates";
import { longDay } from "../data/words";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";
import { FreeTimes } from "./FreeTimes";

type Lesson = Schemas["LessonDate"];

/** Where a lesson is to be put, as it was dropped or typed. */
export interface Wish {
  day: string;
  startsAt: string;
}

/** What can be done with one lesson: move it, alone or with all that follow, cancel it, make it up, restore it. */
export function LessonSheet(props: { lesson?: Lesson; wish?: Wish; onClose: () => void }) {
  const { lesson } = props;
  return (
    <Sheet
      open={lesson !== undefined}
      onOpenChange={(open) => !open && props.onClose()}
      title={lesson?.name ?? "Lesson"}
      says={
        lesson
          ? `${longDay(lesson.day)}, ${lesson.startsAt}, ${lesson.minutes} min, ${lesson.instrument}${lesson.words ? `. ${lesson.words}.` : "."}`
          : ""
      }
    >
      {lesson && (
        <Choices
          key={`${lesson.lesson} ${props.wish?.day} ${props.wish?.startsAt}`}
          lesson={lesson}
          wish={props.wish}
          done={props.onClose}
        />
      )}
    </Sheet>
  );
}

function Choices({ lesson, wish, done }: { lesson: Lesson; wish?: Wish; done: () => void }) {
  const change = useChangeLesson(done);
  const [at, setAt] = useState({
    day: wish?.day ?? lesson.day,
    startsAt: wish?.startsAt ?? lesson.startsAt,
    minutes: lesson.minutes,
  });
  const [late, setLate] = useState(false);
  const cancelled = lesson.state === "cancelled";
  const free = useFree(lesson.ladder, lesson.day, lesson.minutes, !wish);
  const send = (c: Schemas["LessonChange"], id = lesson.lesson) =>
    change.mutate({ ladder: lesson.ladder, lesson: id, change: c });
  const place = (what: "move" | "moveOn") =>
    send({ what, ...at, slot: what === "moveOn" ? ulid() : undefined });
  const makeUp = (t: Pick<typeof at, "day" | "startsAt">) =>
    send({ what: "add", ...t, minutes: at.minutes, makesUp: lesson.lesson }, ulid());
  return (
    <div className="grid gap-4">
      <form
        className="grid gap-3"
        onSubmit={(e: FormEvent) => {
          e.preventDefault();
          if (cancelled) makeUp(at);
          else place("move");
        }}
      >
        <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
          <div className="col-span-2 grid sm:col-span-1">
            <Field label="Day">
              <input
                type="date"
                required
                value={at.day}
                onChange={(e) => setAt({ ...at, day: e.target.value })}
                className="min-w-0"
              />
            </Field>
          </div>
          <Field label="At">
            <input
              type="time"
              required
              value={at.startsAt}
              onChange={(e) => setAt({ ...at, startsAt: e.target.value })}
            />
          </Field>
          <Field label="Minutes">
            <input
              type="number"
              required
              min={5}
              max={240}
              value={at.minutes}
              onChange={(e) => setAt({ ...at, minutes: Number(e.target.value) })}
            />
          </Field>
        </div>
        {!wish && (
          <FreeTimes
            times={free.data}
            failed={free.isError}
            at={at}
            onChoose={(t) => setAt({ ...at, ...t })}
          />
        )}
        <Refused error={change.error} />
        <div className="flex flex-wrap gap-2">
          {cancelled ? (
            <button type="submit" className="press press-main" disabled={change.isPending}>
              Make it up then
            </button>
          ) : (
            <>
              <button type="submit" className="press press-main" disabled={change.isPending}>
                Move this lesson
              </button>
              {lesson.due && (
                <button
                  type="button"
                  className="press"
                  disabled={change.isPending}
                  onClick={() => place("moveOn")}
                >
                  Move it and all that follow
                </button>
              )}
            </>
          )}
        </div>
      </form>
      {!cancelled && (
        <section className="border-t border-line pt-3">
          <label className="flex min-h-touch items-center gap-3">
            <input
              type="checkbox"
              className="size-5 min-h-0 accent-working"
              checked={late}
              onChange={(e) => setLate(e.target.checked)}
            />
            Cancelled late
          </label>
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="press"
              disabled={change.isPending}
              onClick={() => send({ what: "cancel", by: "student", late })}
            >
              The student cancels
            </button>
            <button
              type="button"
              className="press"
              disabled={change.isPending}
              onClick={() => send({ what: "cancel", by: "teacher" })}
            >
              I cancel
            </button>
          </div>
        </section>
      )}
      <div className="flex flex-wrap gap-x-4 border-t border-line pt-2">
        {(cancelled || lesson.state === "moved") && (
          <button
            type="button"
            className="quiet"
            disabled={change.isPending}
            onClick={() => send({ what: "restore" })}
          >
            Back to its usual time
          </button>
        )}
        {lesson.state === "added" && (
          <button
            type="button"
            className="quiet"
            disabled={change.isPending}
            onClick={() => send({ what: "restore" })}
          >
            Remove this lesson
          </button>
        )}
        {lesson.became === "notEntered" && (
          <Link className="quiet" to={`/past/${lesson.ladder}?day=${lesson.day}`}>
            Enter this lesson
          </Link>
        )}
        <Link className="quiet" to={`/student/${lesson.student}`}>
          Student
        </Link>
        <Link className="quiet" to={`/plan/${lesson.ladder}?day=${lesson.day}`}>
          Plan
        </Link>
      </div>
    </div>
  );
}
