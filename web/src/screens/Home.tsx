import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import type { Schemas } from "../contract/client";
import { tap, tapped } from "../data/boxes";
import { familyQuery, scoresQuery, useScoresAhead } from "../data/home";
import { useTicks } from "../data/useTicks";
import { DayStrip } from "../family/DayStrip";
import { FromHere } from "../family/FromHere";
import { ItemCard } from "../family/ItemCard";
import { NotYet } from "../family/NotYet";
import { Path } from "../family/Path";
import { PlayBar } from "../family/PlayBar";
import { Reports } from "../family/Reports";
import { SpokenContext, sayer, useSay } from "../family/say";
import { dayToOpen, doneOn, firstOn, inOrder, ticked } from "../family/ticks";
import { LanguageSwitch, WishesForm } from "../family/Wishes";
import { Waiting } from "../parts/Problem";

type Page = Schemas["FamilyPage"];

/** What a family sees on the phone: today's practice, one thing at a time, and the way so far. */
export function Home({ token }: { token: string }) {
  const [week, setWeek] = useState<string>();
  const page = useQuery(familyQuery(token, week));
  const p = page.data;
  useEffect(() => {
    if (!p) return;
    document.documentElement.lang = p.language;
    document.title = `${p.name}, ${p.instrument}`;
  }, [p]);
  if (page.isPending) return <Waiting />;
  if (page.error || !p)
    return (
      <main className="mx-auto max-w-md px-5 py-16">
        <h1>{page.error?.message}</h1>
      </main>
    );
  return (
    <SpokenContext.Provider value={{ say: sayer(p.texts), locale: p.locale }}>
      <Week page={p} token={token} week={week} setWeek={setWeek} />
    </SpokenContext.Provider>
  );
}

function Week(props: {
  page: Page;
  token: string;
  week: string | undefined;
  setWeek: (week: string | undefined) => void;
}) {
  const { page: p, token } = props;
  const { say, dayAndYear } = useSay();
  const ticks = useTicks(token);
  const [chosen, setDay] = useState<string>();
  const all = ticked(p.ticks, ticks.waiting);
  const open = chosen ?? dayToOpen(p.days, p.today);
  const day = p.days.find((d) => d.date === open);
  const coming = useMemo(() => p.days.filter((d) => d.items.length > 0 && d.date >= p.today), [p]);
  useScoresAhead(token, coming, props.week);
  return (
    <main className="mx-auto max-w-xl px-4 pb-16 pt-4">
      <p className="fine flex flex-wrap gap-x-3">
        <span className="flex-1">
          {p.name} · {p.teacher}, {p.studio}
        </span>
        <LanguageSwitch page={p} token={token} />
        {p.others.map((o) => (
          <a key={o.link} href={o.link} className="quiet min-h-0">
            {o.name}
          </a>
        ))}
      </p>
      <h1 className="text-[1.3rem] leading-tight">{p.sentence}</h1>
      {p.words && <p className="say mt-2 border-l-4 border-focus pl-3">“{p.words}”</p>}
      <p role="status" className="fine empty:hidden">
        {ticks.unsent > 0 && say("waits", { n: ticks.unsent })}
        {ticks.full && say("full")}
      </p>
      {ticks.refused.map((r) => (
        <p key={r.entry.id} role="alert" className="border-l-4 border-cliff bg-fold px-3 py-2">
          {r.refused}{" "}
          <button type="button" className="quiet" onClick={() => ticks.forget(r.entry.id)}>
            {say("away")}
          </button>
        </p>
      ))}
      {p.weeks.length > 1 && (
        <nav aria-label={say("weeks")} className="mt-1 flex flex-wrap gap-2">
          {p.weeks.map((w, i) => (
            <button
              key={w.start}
              type="button"
              aria-pressed={w.start === p.start}
              className="press aria-pressed:border-working aria-pressed:bg-fold"
              onClick={() => {
                props.setWeek(i === 0 ? undefined : w.start);
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
      {day && (
        <Day
          token={token}
          key={day.date}
          day={day}
          week={props.week}
          page={p}
          ticks={all}
          tick={ticks.tick}
        />
      )}
      <NotYet list={p.notYet} watch={p.watch} dose={p.dose} />
      {p.treats.length > 0 && (
        <ul className="mt-6" aria-label={say("promised")}>
          {p.treats.map((t) => (
            <li key={t.id} className={t.earned ? "text-good" : "text-soft"}>
              {t.words}: {t.says}
            </li>
          ))}
        </ul>
      )}
      <FromHere page={p} waiting={ticks.waiting} send={ticks.tick} />
      <Reports reports={p.reports} token={token} />
      <Path path={p.path} name={p.name} />
      <WishesForm page={p} token={token} />
      <footer className="mt-8 border-t border-line pt-3">
        <p className="fine">{p.caution}</p>
        {p.days.length > 0 && (
          <p className="mt-2 flex flex-wrap gap-2">
            <a
              className="press"
              href={`/api/family/${token}/sheet?language=${p.language}${props.week ? `&week=${props.week}` : ""}`}
              target="_blank"
              rel="noreferrer"
            >
              {say("paper")}
            </a>
            <a className="press" href={`/api/family/${token}/calendar`}>
              {say("calendar")}
            </a>
          </p>
        )}
        <p className="fine mt-2">{say("link", { date: dayAndYear(p.expires) })}</p>
      </footer>
    </main>
  );
}

/** One day: choose what comes first, then one thing at a time. */
function Day(props: {
  token: string;
  day: Schemas["FamilyDay"];
  week: string | undefined;
  page: Page;
  ticks: Schemas["FamilyTick"][];
  tick: ReturnType<typeof useTicks>["tick"];
}) {
  const { day, page, ticks, tick } = props;
  const { say, longDay, weekday } = useSay();
  const items = inOrder(day.items, firstOn(ticks, day.date, day.items));
  const next = items.findIndex((i) => !doneOn(ticks, day.date, i.key));
  const [picked, setPicked] = useState<string>();
  const at = picked ? items.findIndex((i) => i.key === picked) : next < 0 ? items.length - 1 : next;
  const item = items[at];
  const scores = useQuery(scoresQuery(props.token, day, props.week)).data;
  if (day.rest) return <Rest page={page} day={day.date} token={props.token} week={props.week} />;
  if (!item) return <p className="say mt-6 text-center">{say("empty")}</p>;
  const boxes = { token: props.token, day: day.date, item: item.key };
  const future = day.date > page.today;
  const begun = items.some((i) => doneOn(ticks, day.date, i.key));
  const done = doneOn(ticks, day.date, item.key);
  return (
    <section aria-label={longDay(day.date)}>
      <p className="mt-2 flex flex-wrap items-baseline justify-between gap-x-3">
        <strong>{longDay(day.date)}</strong>
        {day.focus && (
          <span>
            {say("listen-for")} <em>{day.focus}</em>
          </span>
        )}
      </p>
      {next < 0 && <p className="say mt-3 text-good">{say("all-done")}</p>}
      <ItemCard
        key={item.key}
        item={item}
        name={page.name}
        tone={page.tone}
        music={scores?.music.find((m) => m.key === item.music)}
        excerpt={scores?.excerpts.find((x) => x.key === item.excerpt)}
        shut={future ? say("comes", { day: weekday(day.date) }) : ""}
        done={done}
        tapped={tapped(boxes)}
        tap={(times) => tap(boxes, times)}
        onDone={(times, felt) => {
          tap(boxes, 0);
          tick({ kind: "done", day: day.date, item: item.key, times, felt });
          setPicked(undefined);
          scrollTo({ top: 0 });
        }}
        onUndo={() => {
          if (!done) return;
          tick({ kind: "undo", undoes: done.id });
          setPicked(item.key);
        }}
        onNext={next >= 0 ? () => setPicked(undefined) : undefined}
      />
      {!future && !begun && items.length > 1 && (
        <fieldset className="m-0 mt-4 border-0 p-0">
          <legend className="fine">{say("first")}</legend>
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
      <ol className="mt-3 flex flex-col gap-1" aria-label={say("day")}>
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
                {i.card.where && <span className="fine"> {i.card.where}</span>}
                <span className="sr-only">{doneOn(ticks, day.date, i.key) ? `, ${say("done")}` : ""}</span>
              </span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** A day of rest: when it goes on, and something to hear until then. */
function Rest(props: { page: Page; day: string; token: string; week: string | undefined }) {
  const { page, day } = props;
  const { say, weekday } = useSay();
  const next = page.days.find((d) => d.date > day && !d.rest);
  const on = page.days.find((d) => page.tune !== "" && d.items.some((i) => i.key === page.tune));
  const tune = on?.items.find((i) => i.key === page.tune);
  const scores = useQuery(scoresQuery(props.token, on, props.week)).data;
  const music = scores?.music.find((m) => m.key === tune?.music);
  return (
    <section className="mt-6 text-center">
      <p className="say">{say("rest", { day: weekday(day) })}</p>
      {next && <p className="mt-1">{say("rest.next", { day: weekday(next.date) })}</p>}
      {tune && music && (
        <div className="mt-5 rounded-2xl border border-line bg-sheet p-4">
          <p className="fine">{say("rest.hear")}</p>
          <h2>{tune.title}</h2>
          <PlayBar item={tune} music={music} tone={page.tone} tell={() => {}} />
        </div>
      )}
    </section>
  );
}

/** What can be played first on a day, each piece once. */
function pieces(items: Schemas["FamilyItem"][]): Schemas["FamilyItem"][] {
  const seen = new Set<string>();
  return items.filter((i) => i.canBeFirst && !seen.has(i.material) && seen.add(i.material));
}
