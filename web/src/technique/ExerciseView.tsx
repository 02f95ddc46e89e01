import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { useExercise } from "../data/technique";
import type { Append } from "../data/useLessonAppend";
import { Refused, Waiting } from "../parts/Problem";
import { Engraving } from "../score/Engraving";
import { Excerpt } from "../score/Excerpt";
import { PlayControls } from "../sound/PlayControls";
import { usePlayback } from "../sound/usePlayback";
import { Drawn } from "./Drawn";
import { heard, soundingAt } from "./sounding";
import { useTake } from "./useTake";

/** One exercise: on its instrument, to be heard with the metronome, engraved, and to be printed. */
export function ExerciseView(props: {
  instrument: string;
  exercise: string | undefined;
  open: (exercise: string) => void;
  /** It stands on the ladder of a student already. */
  taken?: boolean;
  ladder?: string;
  append?: Append;
}) {
  const exercise = useExercise(props.instrument, props.exercise);
  if (exercise.isPending) return <Waiting />;
  if (!exercise.data)
    return (
      <>
        <Refused error={exercise.error} />
        <p className="fine mt-2">Choose another exercise on the staircases.</p>
      </>
    );
  const e = exercise.data;
  return (
    <section aria-label="Exercise">
      <h2>
        {e.title} <span className="font-normal">· {e.step}</span>
      </h2>
      <p className="say mt-1 text-[1.15rem]">{e.sentence}</p>
      <Refused error={exercise.error} />
      <Choices choices={e.choices} busy={exercise.isPlaceholderData} open={props.open} />
      <Playing key={`${e.instrument} ${e.id}`} exercise={e} />
      {!e.drawing && (
        <div className="mt-3 rounded-lg bg-sheet px-3 py-1">
          <Engraving xml={e.musicxml} fingers />
        </div>
      )}
      {!props.taken && <GoalsAndFaults exercise={e} />}
      <p className="fine mt-2">
        {e.why} Done when it is even at {e.tempo}. {e.caution}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-x-3">
        <a
          className="press"
          href={`/api/exercise/sheet?${new URLSearchParams({ instrument: e.instrument, exercise: e.id })}`}
          target="_blank"
          rel="noreferrer"
        >
          Print it
        </a>
        {props.ladder && !props.taken && <TakeIt ladder={props.ladder} exercise={e} append={props.append} />}
      </div>
    </section>
  );
}

/** What to attend to, for an exercise that is not marked beside it. */
function GoalsAndFaults({ exercise: e }: { exercise: Schemas["Exercise"] }) {
  return (
    <div className="mt-2 grid gap-x-8 gap-y-2 md:grid-cols-2">
      <div>
        <h3 className="text-base">Three goals</h3>
        <ol className="list-decimal pl-5">
          {e.goals.map((g) => (
            <li key={g}>{g}</li>
          ))}
        </ol>
      </div>
      <div>
        <h3 className="text-base">
          Usual faults
          <Link
            to={`/settings?exercise=${e.type}`}
            className="fine ml-3 font-normal underline underline-offset-4"
          >
            Change goals and faults
          </Link>
        </h3>
        <ul>
          {e.faults.map((f) => (
            <li key={f.id} className="leading-tight">
              {f.text}
              <span className="fine block">{f.look}</span>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}

function TakeIt(props: { ladder: string; exercise: Schemas["Exercise"]; append?: Append }) {
  const take = useTake(props.ladder, props.append);
  return (
    <>
      <button
        type="button"
        className="press border-working"
        disabled={take.isPending}
        onClick={() => take.mutate({ exercise: props.exercise.id, begin: true })}
      >
        Begin this one
      </button>
      <Refused error={take.error} />
    </>
  );
}

function Choices(props: {
  choices: Schemas["ExerciseChoice"][];
  /** Another exercise is on its way; what is around this one no longer counts. */
  busy: boolean;
  open: (exercise: string) => void;
}) {
  return (
    <div className="mt-2 flex flex-wrap gap-x-4 gap-y-2">
      {props.choices.map((c) => (
        <label key={c.name} className="flex min-w-0 flex-col">
          <span className="fine">{c.name.toLowerCase()}</span>
          <select
            className="max-w-64"
            disabled={props.busy}
            value={c.options.find((o) => o.chosen)?.id ?? ""}
            onChange={(x) => props.open(x.target.value)}
          >
            {c.options.map((o) => (
              <option key={o.id} value={o.id}>
                {o.name}
              </option>
            ))}
          </select>
        </label>
      ))}
    </div>
  );
}

/** The instrument, and its sound with the metronome. */
function Playing({ exercise: e }: { exercise: Schemas["Exercise"] }) {
  const playback = usePlayback();
  const [tempo, setTempo] = useState(e.tempo);
  const sounding = playback.now ? soundingAt(e.notes, playback.now.at, playback.now.midi) : [];
  return (
    <div className="mt-3">
      <Drawn exercise={e} sounding={sounding} />
      <PlayControls
        playback={playback}
        tempo={tempo}
        setTempo={setTempo}
        what={() => ({
          notes: heard(e.notes),
          tone: e.family,
          beats: e.beats,
          start: 0,
          end: e.length,
        })}
      />
      {e.drawing && (
        <div className="mt-3 rounded-lg bg-sheet px-3 py-2">
          <Excerpt of={e.drawing} at={playback.now?.at} label={`${e.title}: notes and tablature`} />
        </div>
      )}
    </div>
  );
}
