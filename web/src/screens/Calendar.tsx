import {
  DndContext,
  type DragEndEvent,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { agendaQuery } from "../data/dates";
import { useFirstDay, useToday } from "../data/people";
import { addDays, clockOf, daysBetween, minutesOf, monthOf, weekStart } from "../data/time";
import { longDay } from "../data/words";
import { ExtraLesson } from "../dates/ExtraLesson";
import { LessonSheet, type Wish } from "../dates/LessonSheet";
import { MonthGrid } from "../dates/MonthGrid";
import { dropped } from "../dates/place";
import { Subscribe } from "../dates/Subscribe";
import { WeekGrid } from "../dates/WeekGrid";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Holidays } from "../way/Holidays";

type Lesson = Schemas["LessonDate"];

const monthName = new Intl.DateTimeFormat("en-GB", { month: "long", year: "numeric", timeZone: "UTC" });

/** The weeks ahead and behind: who comes when; each lesson can be moved, cancelled and made up. */
export function Calendar() {
  const [params, setParams] = useSearchParams();
  const today = useToday();
  const month = params.get("view") === "month";
  const day = params.get("day") ?? today;
  const from = weekStart(month ? monthOf(day) : day, useFirstDay());
  const last = month ? daysBetween(from, monthOf(day, 1)) : 7;
  const days = Math.ceil(last / 7) * 7;
  const agenda = useQuery(agendaQuery(from, days));
  const [open, setOpen] = useState<{ lesson: Lesson; wish?: Wish }>();
  const grid = useRef<HTMLDivElement>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 8 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
  );
  const go = (to: { day?: string; view?: string }) => {
    const next = new URLSearchParams(params);
    for (const [k, v] of Object.entries(to)) next.set(k, v);
    setParams(next, { replace: true });
  };
  if (agenda.isPending) return <Waiting />;
  if (agenda.error) return <Problem error={agenda.error} again={() => agenda.refetch()} />;
  const a = agenda.data;
  const drop = (e: DragEndEvent) => {
    const lesson = e.active.data.current as Lesson | undefined;
    const section = grid.current?.querySelector("section");
    if (!lesson || !section) return;
    const box = section.getBoundingClientRect();
    const at = { day: daysBetween(a.from, lesson.day), minutes: minutesOf(lesson.startsAt) };
    if (month) {
      const rows = Math.round(e.delta.y / box.height);
      const to = at.day + Math.round(e.delta.x / box.width) + 7 * rows;
      if (to !== at.day && to >= 0 && to < days)
        setOpen({ lesson, wish: { day: addDays(a.from, to), startsAt: lesson.startsAt } });
      return;
    }
    const to = dropped(at, e.delta, box.width, 7);
    if (to.day !== at.day || to.minutes !== at.minutes)
      setOpen({ lesson, wish: { day: addDays(a.from, to.day), startsAt: clockOf(to.minutes) } });
  };
  return (
    <div className="mx-auto max-w-[90rem] px-4 py-4 sm:px-6">
      <Title of="Calendar" />
      <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
          <p className="fine">
            {month
              ? monthName.format(new Date(`${monthOf(day)}T00:00:00Z`))
              : `${longDay(a.from)} – ${longDay(addDays(a.from, 6))}`}
          </p>
          <h1 className="text-[1.6rem]">{a.sentence}</h1>
        </div>
        <div className="flex flex-wrap items-center gap-2">
          <fieldset className="m-0 flex border-0 p-0">
            <legend className="sr-only">Show</legend>
            {["week", "month"].map((view) => (
              <button
                key={view}
                type="button"
                aria-pressed={(view === "month") === month}
                className="press border-line px-3 first-of-type:rounded-r-none last-of-type:rounded-l-none aria-pressed:border-ink aria-pressed:bg-fold"
                onClick={() => go({ view, day })}
              >
                {view === "week" ? "Week" : "Month"}
              </button>
            ))}
          </fieldset>
          <button
            type="button"
            className="press px-4"
            onClick={() => go({ day: month ? monthOf(day, -1) : addDays(day, -7) })}
          >
            ‹ <span className="sr-only">Before</span>
          </button>
          <button type="button" className="press" onClick={() => go({ day: today })}>
            Today
          </button>
          <button
            type="button"
            className="press px-4"
            onClick={() => go({ day: month ? monthOf(day, 1) : addDays(day, 7) })}
          >
            › <span className="sr-only">After</span>
          </button>
          <ExtraLesson day={today} />
        </div>
      </header>
      <DndContext sensors={sensors} onDragEnd={drop}>
        <div ref={grid} className="mt-3" aria-busy={agenda.isFetching}>
          {month ? (
            <MonthGrid
              days={a.days}
              today={today}
              onOpen={(lesson) => setOpen({ lesson })}
              onDay={(d) => go({ view: "week", day: d })}
            />
          ) : (
            <WeekGrid days={a.days} today={today} onOpen={(lesson) => setOpen({ lesson })} />
          )}
        </div>
      </DndContext>
      <p className="fine mt-2">
        Drag a lesson to another time, or press it for everything that can be done with it.
      </p>
      <div className="mt-6 grid gap-8 border-t border-line pt-5 md:grid-cols-3">
        <section aria-label="To make up">
          <h2>To make up</h2>
          {a.toMakeUp.length === 0 && <p className="fine">Nothing is to be made up.</p>}
          <ul>
            {a.toMakeUp.map((l) => (
              <li key={l.lesson}>
                <button type="button" className="quiet text-left" onClick={() => setOpen({ lesson: l })}>
                  {l.name}, {longDay(l.day)}
                </button>
              </li>
            ))}
          </ul>
        </section>
        <Holidays />
        <Subscribe />
      </div>
      <LessonSheet lesson={open?.lesson} wish={open?.wish} onClose={() => setOpen(undefined)} />
    </div>
  );
}
