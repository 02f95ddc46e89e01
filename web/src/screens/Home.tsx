import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import type { Schemas } from "../contract/client";
import { tap, tapped } from "../data/boxes";
import { familyQuery } from "../data/home";
import { useTicks } from "../data/useTicks";
import { longDay, weekdayOf } from "../data/words";
import { DayStrip } from "../family/DayStrip";
import { ItemCard } from "../family/ItemCard";
import { Path } from "../family/Path";
import { Reports } from "../family/Reports";
import { dayToOpen, doneOn, firstOn, inOrder, ticked } from "../family/ticks";
import { Waiting } from "../parts/Problem";

/** What a family sees on the phone: today's practice, one thing at a time, and the way so far. */
export function Home() {
  const { token = "" } = useParams();
  const [week, setWeek] = useState<string>();
  const page = useQuery(familyQuery(token, week));
  const ticks = useTicks(token);
  const [chosen, setDay] = useState<string>();
  if (page.isPending) return <Waiting />;
  if (page.error)
    return (
      <main className="mx-auto max-w-md px-5 py-16">
        <h1>{page.error.message}</h1>
      </main>
    );
  const p = page.data;
  const all = ticked(p.ticks, ticks.waiting);
  const open = chosen ?? dayToOpen(p.days, p.today);
  const day = p.days.find((d) => d.date === open);
  return (
    <main className="mx-auto max-w-xl px-4 pb-16 pt-4">
      <p className="fine">
        {p.name} · {p.teacher}, {p.studio}
      </p>
      <h1 className="text-[1.6rem]">{p.sentence}</h1>
      {p.words && <p className="say mt-2 border-l-4 border-focus pl-3">“{p.words}”</p>}
      <p role="status" className="fine min-h-5">
        {ticks.unsent > 0 &&
          `${ticks.unsent} ${ticks.unsent === 1 ? "tick waits" : "ticks wait"} on this phone until there is a connection.`}
        {ticks.full && "This phone has no room to keep the tick."}
      </p>
      {ticks.refused.map((r) => (
        <p key={r.entry.id} role="alert" className="border-l-4 border-cliff bg-fold px-3 py-2">
          {r.refused}{" "}
          <button type="button" className="quiet" onClick={() => ticks.forget(r.entry.id)}>
            Put it away
          </button>
        </p>
      ))}
      {p.weeks.length > 1 && (
        <nav aria-label="Weeks" className="mt-1 flex flex-wrap gap-2">
          {p.weeks.map((w, i) => (
            <button
              key={w.start}
              type="button"
              aria-pressed={w.start === p.start}
              className="press aria-pressed:border-working aria-pressed:bg-fold"
              onClick={() => {
                setWeek(i === 0 ? undefined : w.start);
                setDay(undefined);
              }}
            >
              {w.name}
            </button>
          ))}
        </nav>
      )}
      {p.days.length > 0 && (
        <DayStrip days={p.days} today={p.today} open={open} ticks={all} onOpen={setDay} />
      )}
      {day && <Day token={token} key={day.date} day={day} page={p} ticks={all} tick={ticks.tick} />}
      {p.notYet.length > 0 && (
        <section className="mt-8 border-4 border-double border-cliff p-3">
          <h2>Not yet</h2>
          <ul className="text-lg">
            {p.notYet.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        </section>
      )}
      {p.watch && <p className="mt-4 border-l-4 border-focus pl-3 text-lg">{p.watch}</p>}
      {p.dose && <p className="mt-4">{p.dose}</p>}
      {p.treats.length > 0 && (
        <ul className="mt-6" aria-label="Promised">
          {p.treats.map((t) => (
            <li key={t.id} className={t.earned ? "text-good" : "text-soft"}>
              {t.words}: {t.says}
            </li>
          ))}
        </ul>
      )}
      <Reports reports={p.reports} token={token} />
      <Path path={p.path} name={p.name} />
      <footer className="mt-10 border-t border-line pt-3">
        <p className="fine">{p.caution}</p>
        {p.days.length > 0 && (
          <p className="mt-2 flex flex-wrap gap-2">
            <a
              className="press"
              href={`/api/family/${token}/sheet${week ? `?week=${week}` : ""}`}
              target="_blank"
              rel="noreferrer"
            >
              The week on paper
            </a>
            <a className="press" href={`/api/family/${token}/calendar`}>
              Calendar
            </a>
          </p>
        )}
        <p className="fine mt-2">
          This page opens by its link until {longDay(p.expires)}; keep the link to yourselves. It knows a
          first name and what is ticked here.
        </p>
      </footer>
    </main>
  );
}

/** One day: choose what comes first, then one thing at a time. */
function Day(props: {
  token: string;
  day: Schemas["FamilyDay"];
  page: Schemas["FamilyPage"];
  ticks: Schemas["FamilyTick"][];
  tick: ReturnType<typeof useTicks>["tick"];
}) {
  const { day, page, ticks, tick } = props;
  const items = inOrder(day.items, firstOn(ticks, day.date, day.items));
  const next = items.findIndex((i) => !doneOn(ticks, day.date, i.key));
  const [picked, setPicked] = useState<string>();
  const at = picked ? items.findIndex((i) => i.key === picked) : next < 0 ? items.length - 1 : next;
  const item = items[at];
  if (day.rest) return <p className="say mt-6 text-center">{weekdayOf(day.date)} is a day of rest.</p>;
  if (!item) return <p className="say mt-6 text-center">Nothing is set for this day.</p>;
  const boxes = { token: props.token, day: day.date, item: item.key };
  const future = day.date > page.today;
  const begun = items.some((i) => doneOn(ticks, day.date, i.key));
  const done = doneOn(ticks, day.date, item.key);
  return (
    <section aria-label={longDay(day.date)}>
      <p className="mt-4 flex flex-wrap items-baseline justify-between gap-2">
        <strong className="text-lg">{longDay(day.date)}</strong>
        {day.focus && (
          <span>
            listen for <em>{day.focus}</em>
          </span>
        )}
      </p>
      {!future && !begun && items.length > 1 && (
        <fieldset className="m-0 mt-2 border-0 p-0">
          <legend className="fine">What do you want to play first?</legend>
          <div className="mt-1 flex flex-wrap gap-2">
            {pieces(items).map((i) => (
              <button
                key={i.key}
                type="button"
                aria-pressed={i === items[0] && i.key === firstOn(ticks, day.date, day.items)}
                className="press aria-pressed:border-working aria-pressed:bg-reach aria-pressed:font-semibold"
                onClick={() => {
                  tick({ kind: "first", day: day.date, item: i.key });
                  setPicked(undefined);
                }}
              >
                {i.title}
              </button>
            ))}
          </div>
        </fieldset>
      )}
      {next < 0 && <p className="say mt-3 text-good">All of it is done. Anything more is for pleasure.</p>}
      <ItemCard
        key={item.key}
        item={item}
        music={page.music.find((m) => m.material === item.material)}
        shut={future ? `This comes on ${weekdayOf(day.date)}.` : ""}
        done={done}
        tapped={tapped(boxes)}
        tap={(times) => tap(boxes, times)}
        onDone={(times, felt) => {
          tap(boxes, 0);
          tick({ kind: "done", day: day.date, item: item.key, times, felt });
          setPicked(undefined);
        }}
        onUndo={() => {
          if (!done) return;
          tick({ kind: "undo", undoes: done.id });
          setPicked(item.key);
        }}
      />
      <ol className="mt-3 flex flex-col gap-1" aria-label="All of this day">
        {items.map((i) => (
          <li key={i.key}>
            <button
              type="button"
              aria-current={i === item ? "step" : undefined}
              className="flex min-h-touch w-full items-center gap-3 rounded px-2 text-left aria-[current]:bg-fold"
              onClick={() => setPicked(i.key)}
            >
              <span
                aria-hidden="true"
                className="inline-flex h-6 w-6 shrink-0 items-center justify-center border-2 border-ink text-good"
              >
                {doneOn(ticks, day.date, i.key) ? "✓" : ""}
              </span>
              <span className="min-w-0 leading-tight">
                {i.title}
                {i.where && i.where !== "the whole piece" && <span className="fine"> {i.where}</span>}
                <span className="sr-only">{doneOn(ticks, day.date, i.key) ? ", done" : ""}</span>
              </span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** The pieces of a day, each once. */
function pieces(items: Schemas["FamilyItem"][]): Schemas["FamilyItem"][] {
  const seen = new Set<string>();
  return items.filter((i) => i.kind !== "preview" && !seen.has(i.material) && seen.add(i.material));
}
