import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useSaveWay, useSession, useStudents, useTryWay, useWay } from "../data/people";
import { firstName } from "../data/words";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { SwitchField } from "./SwitchField";
import { groups, type Way } from "./switches";

/** Ways of teaching: presets and every switch, for the studio or for one student; a change is shown before it is applied. */
export function Ways() {
  const [ladder, setLadder] = useState<string>();
  const way = useWay(ladder);
  const students = useStudents();
  const session = useSession();
  const name = ladder === "mine" ? "my students" : students.data?.find((s) => s.ladder === ladder)?.name;
  return (
    <section aria-label="Ways of teaching">
      <label className="flex flex-wrap items-center gap-2">
        <span className="font-head text-[1.4rem] font-semibold">Ways of teaching</span>
        <span className="fine">for</span>
        <select value={ladder ?? ""} onChange={(e) => setLadder(e.target.value || undefined)}>
          <option value="">the studio</option>
          {session.data?.role === "teacher" && <option value="mine">all my students</option>}
          {students.data?.map((s) => (
            <option key={s.ladder} value={s.ladder}>
              {s.name}
            </option>
          ))}
        </select>
      </label>
      {way.isPending && <Waiting />}
      {way.error && <Problem error={way.error} again={() => way.refetch()} />}
      {way.data && (
        <Form
          key={`${ladder} ${way.data.version} ${JSON.stringify(way.data.way)}`}
          view={way.data}
          ladder={ladder}
          name={name}
        />
      )}
    </section>
  );
}

function Form(props: { view: Schemas["WayView"]; ladder?: string; name?: string }) {
  const { view, ladder } = props;
  const [way, setWay] = useState<Way>(view.way);
  const attempt = useTryWay(ladder);
  const apply = useSaveWay(view.version, ladder);
  const change = (w: Way) => {
    setWay(w);
    attempt.mutate(w);
  };
  const whoseName = ladder === "mine" ? "my students" : props.name ? firstName(props.name) : "the studio";
  const changed = attempt.data && attempt.data.switches.length > 0 && !same(way, view.way);
  return (
    <>
      <fieldset className="m-0 mt-2 grid gap-2 border-0 p-0 sm:grid-cols-2 xl:grid-cols-4">
        <legend className="sr-only">Presets</legend>
        {view.presets.map((p) => (
          <button
            key={p.key}
            type="button"
            aria-pressed={same(way, p.way)}
            onClick={() => change(p.way)}
            className="flex flex-col items-start rounded-lg border-2 border-line bg-sheet px-3 py-2 text-left aria-pressed:border-working"
          >
            <span className="font-head text-lg font-semibold">{p.name}</span>
            <span className="fine block">{p.says}</span>
          </button>
        ))}
      </fieldset>
      {changed && (
        <Announced
          change={attempt.data}
          busy={apply.isPending || attempt.isPending}
          whose={`for ${whoseName}`}
          apply={() => apply.mutate(way)}
          drop={() => {
            setWay(view.way);
            attempt.reset();
          }}
        />
      )}
      {!ladder && view.version <= 1 && !changed && (
        <p className="mt-3">
          <button
            type="button"
            className="press press-main"
            disabled={apply.isPending}
            onClick={() => apply.mutate(way)}
          >
            Keep this way
          </button>{" "}
          <span className="fine">It holds now. You can change it at any time.</span>
        </p>
      )}
      <Refused error={attempt.error ?? apply.error} />
      {view.differs.length > 0 && !changed && (
        <p className="mt-3">
          {ladder === "mine" ? "Your way" : whoseName} differs from{" "}
          {ladder === "mine" ? "the studio" : "your usual way"} in {view.differs.length}{" "}
          {view.differs.length === 1 ? "switch" : "switches"}.
        </p>
      )}
      <div className="mt-4 grid gap-x-10 gap-y-5 xl:grid-cols-2">
        {groups.map((g) => (
          <fieldset key={g.title} className="m-0 border-0 p-0">
            <legend className="font-head text-lg font-semibold">{g.title}</legend>
            {g.switches.map((s) => (
              <SwitchField
                bound={view.bounds.find((b) => b.switch === s.key)}
                key={s.key}
                field={s}
                way={way}
                differs={view.differs.includes(s.key) || way[s.key] !== view.way[s.key]}
                change={change}
              />
            ))}
          </fieldset>
        ))}
      </div>
    </>
  );
}

const same = (a: Way, b: Way) => (Object.keys(a) as (keyof Way)[]).every((k) => a[k] === b[k]);

/** What would change, switch by switch and student by student, before anything is applied. */
function Announced(props: {
  change: Schemas["WayChange"];
  busy: boolean;
  whose: string;
  apply: () => void;
  drop: () => void;
}) {
  const { switches, students } = props.change;
  return (
    <section
      aria-label="What this would change"
      aria-live="polite"
      className="mt-4 rounded-lg border-2 border-preview bg-sheet p-4"
    >
      <h2>What this would change {props.whose}</h2>
      <ul className="mt-1">
        {switches.map((s) => (
          <li key={s.key} className="border-t border-line/60 py-1 first:border-0">
            {s.name}: <s className="text-soft">{s.from}</s> → <strong>{s.to}</strong>
            <span className="fine block">{s.means}</span>
          </li>
        ))}
      </ul>
      {students.length > 0 && <h3 className="mt-3">In this week</h3>}
      <ul>
        {students.map((s) => (
          <li key={s.ladder} className="py-0.5">
            <strong>{firstName(s.name)}</strong>: {s.effects.join("; ")}
          </li>
        ))}
      </ul>
      <p className="mt-3 flex gap-2">
        <button type="button" className="press" disabled={props.busy} onClick={props.drop}>
          Leave it
        </button>
        <button type="button" className="press press-main" disabled={props.busy} onClick={props.apply}>
          Apply it
        </button>
      </p>
    </section>
  );
}
