import { useState } from "react";
import type { Schemas } from "../contract/client";
import { entry } from "../data/entries";
import { useFamily, useToday } from "../data/people";
import { type CycleTry, useCycle } from "../data/technique";
import type { Append } from "../data/useLessonAppend";
import { shortDate } from "../data/words";
import { Refused } from "../parts/Problem";
import { nextPass } from "./words";

/**
 * The keys over a student's lessons, one a lesson: the cycle that is kept, or one to
 * try. A gap is a week without a lesson; a lesson that was missed slides the rest.
 */
export function CycleStrip(props: {
  technique: Schemas["Technique"];
  append: Append;
  open: (exercise: string) => void;
}) {
  const { technique: t, append } = props;
  const [trying, setTrying] = useState(false);
  if (t.cycleTypes.length === 0) return null;
  if (t.cycle && t.cycleEntry && !trying)
    return <Kept {...props} cycle={t.cycle} change={() => setTrying(true)} />;
  return <Trying technique={t} append={append} open={props.open} done={() => setTrying(false)} />;
}

function Kept(props: {
  technique: Schemas["Technique"];
  append: Append;
  open: (exercise: string) => void;
  cycle: Schemas["Cycle"];
  change: () => void;
}) {
  const { cycle: c, append } = props;
  const next = c.passes[c.pass + 1];
  const through = c.weeks.filter((w) => w.state === "through").length;
  const end = () =>
    append.mutate([
      entry("cycle", {
        cycle: { type: "", step: "", kind: "", first: "", order: "fifths", from: "" },
      }),
    ]);
  return (
    <section aria-label="Cycle of keys" className="mt-8 border-t border-line pt-4">
      <h2>{c.sentence}</h2>
      <p className="fine mt-1">
        {through} of {c.weeks.length} through.{" "}
        {next ? `The next pass waits: ${next.name}.` : "This is the last pass."}
      </p>
      <Weeks cycle={c} open={props.open} missed={(day) => append.mutate([entry("missed", { day })])} />
      <div className="mt-2 flex flex-wrap gap-x-3">
        <button type="button" className="quiet" onClick={props.change}>
          Another cycle
        </button>
        <button type="button" className="quiet" onClick={end}>
          End this one
        </button>
      </div>
    </section>
  );
}

function Trying(props: {
  technique: Schemas["Technique"];
  append: Append;
  open: (exercise: string) => void;
  done: () => void;
}) {
  const { technique: t, append } = props;
  const [type] = t.cycleTypes;
  const keyboard = useFamily(t.instrument) === "keyboard";
  const today = useToday();
  const [c, setCycle] = useState<CycleTry>({
    type: type?.id ?? "",
    step: nextPass(t),
    kind: type?.kinds[0]?.id ?? "major",
    key: "C",
    order: "fifths",
    from: today,
    before: false,
  });
  const cycle = useCycle(t.ladder, c);
  // The server names the key as it is written in this kind.
  const first = (!cycle.isPlaceholderData && cycle.data?.first) || c.key;
  const set = (more: Partial<CycleTry>) => setCycle({ ...c, ...more });
  const keep = () => {
    const { key: _, ...rest } = c;
    append.mutate([entry("cycle", { cycle: { ...rest, first } })]);
    props.done();
  };
  return (
    <section aria-label="Cycle of keys" className="mt-8 border-t border-line pt-4">
      <h2>{cycle.data && !cycle.error ? cycle.data.sentence : "A key a week, through them all"}</h2>
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <Select name="pass" value={c.step} of={type?.steps ?? []} pick={(step) => set({ step })} />
        <Select name="kind" value={c.kind} of={type?.kinds ?? []} pick={(kind) => set({ kind })} />
        <Select
          name="first key"
          value={first}
          of={type?.kinds.find((k) => k.id === c.kind)?.keys ?? []}
          pick={(key) => set({ key })}
        />
        <Select
          name="order"
          value={c.order}
          of={[
            { id: "fifths", name: "by fifths" },
            { id: "semitones", name: "by semitones" },
          ]}
          pick={(order) => set({ order: order as CycleTry["order"] })}
        />
        <label className="flex flex-col">
          <span className="fine">from</span>
          <input
            type="date"
            value={c.from}
            onChange={(e) => e.target.value && set({ from: e.target.value })}
          />
        </label>
        <label className="flex min-h-touch items-center gap-2">
          <input
            type="checkbox"
            className="min-h-6 w-6 accent-working"
            checked={c.before}
            onChange={(e) => set({ before: e.target.checked })}
          />
          begin a key before a break, too
        </label>
        <button
          type="button"
          className="press press-main"
          disabled={!cycle.data || Boolean(cycle.error)}
          onClick={keep}
        >
          Keep this cycle
        </button>
        {t.cycle && (
          <button type="button" className="quiet" onClick={props.done}>
            Back to the one that is kept
          </button>
        )}
        {keyboard && c.kind === "major" && c.key !== "B" && (
          <button type="button" className="quiet" onClick={() => set({ key: "B" })}>
            Begin with B, where the long fingers lie on the black keys
          </button>
        )}
      </div>
      <Refused error={cycle.error} />
      {cycle.data && !cycle.error && <Weeks cycle={cycle.data} open={props.open} />}
      <p className="fine mt-1">
        Holidays are taken out; they are kept under Ways. Time around:{" "}
        {type?.steps.map((p, i) => `${i + 1}. ${p.name.toLowerCase()}`).join("; ")}.
      </p>
    </section>
  );
}

function Select(props: {
  name: string;
  value: string;
  of: { id: string; name: string }[];
  pick: (id: string) => void;
}) {
  return (
    <label className="flex min-w-0 flex-col">
      <span className="fine">{props.name}</span>
      <select className="max-w-56" value={props.value} onChange={(e) => props.pick(e.target.value)}>
        {props.of.map((o) => (
          <option key={o.id} value={o.id}>
            {o.name}
          </option>
        ))}
      </select>
    </label>
  );
}

const looks: Record<Schemas["Cycle"]["weeks"][number]["state"], string> = {
  through: "border-good bg-sheet",
  begun: "border-working bg-reach",
  now: "border-focus bg-reach font-bold",
  ahead: "border-line bg-sheet",
};
const states = { through: "through", begun: "begun", now: "this week", ahead: "" };

function Weeks(props: {
  cycle: Schemas["Cycle"];
  open: (exercise: string) => void;
  missed?: (day: string) => void;
}) {
  const { missed } = props;
  return (
    <ol className="mt-3 flex flex-wrap gap-y-3" aria-label="Weeks of the cycle">
      {props.cycle.weeks.map((w) => (
        <li key={w.key} className="flex items-stretch">
          {w.held.length > 0 && (
            <span className="fine mx-1 flex w-20 items-center border-t-[5px] border-review bg-sheet px-1 text-center leading-tight">
              {shortDate(w.held[0] ?? w.day).replace(/ \d{4}$/, "")}: hear, begin none
            </span>
          )}
          {w.slid.length > 0 && (
            <span className="fine mx-1 flex w-16 items-center border-y-2 border-dotted border-line px-1 text-center leading-tight">
              no room, {w.slid.length === 1 ? "a week" : `${w.slid.length} weeks`} later
            </span>
          )}
          {w.off > 0 && (
            <span className="fine mx-1 flex w-16 items-center border-y-2 border-dashed border-line px-1 text-center leading-tight">
              {w.missed.length > 0 ? "missed" : w.off === 1 ? "a week off" : `${w.off} weeks off`}
            </span>
          )}
          <span className={`mr-1 flex flex-col border-t-[5px] ${looks[w.state]}`}>
            <button
              type="button"
              className="min-h-touch min-w-20 px-2 text-lg"
              onClick={() => props.open(w.exercise)}
            >
              {w.key}
              <span className="fine block font-normal">{shortDate(w.day).replace(/ \d{4}$/, "")}</span>
              <span className="fine block font-normal">
                {states[w.state] || (w.late ? "heard late" : "\u00a0")}
              </span>
            </button>
            {missed && w.state !== "through" && (
              <button type="button" className="quiet px-1 text-[0.8rem]" onClick={() => missed(w.day)}>
                missed<span className="sr-only"> on {shortDate(w.day)}</span>
              </button>
            )}
          </span>
        </li>
      ))}
    </ol>
  );
}
