import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../contract/client";
import { meetingActivitiesQuery } from "../data/meeting";
import { activitiesQuery, studentsQuery, useApproach, useSaveWords, wordsQuery } from "../data/people";
import { exerciseTypesQuery } from "../data/technique";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Activities } from "../way/Activities";
import { Exercises } from "../way/Exercises";
import { Holidays } from "../way/Holidays";
import { Meetings } from "../way/Meetings";
import { Ways } from "../way/Ways";

type Words = Schemas["Words"];

const approaches: Record<Words["approach"], [name: string, says: string]> = {
  direction: ["by direction", "up, down and same are marked first"],
  interval: ["by interval from guide notes", "steps, skips and the nearest guide note"],
  names: ["by note names", "every note is named"],
  position: ["by position", "the hand is laid, the fingers are read"],
};

const groups: {
  key: "notes" | "steps" | "values" | "rhythm";
  title: string;
  choices: Record<string, [name: string, says: string]>;
}[] = [
  {
    key: "notes",
    title: "Notes are called",
    choices: {
      letters: ["letters", "C, F#, Bb, B"],
      "letters-with-h": ["letters with H", "C, Fis, B, H"],
      solfege: ["fixed solfège", "do, fa#, sib, si"],
    },
  },
  {
    key: "steps",
    title: "Wider moves are called",
    choices: {
      "skips-and-leaps": ["skips and leaps", "a third is a skip, a fourth and more a leap"],
      "all-skips": ["skips", "everything wider than a step"],
    },
  },
  {
    key: "values",
    title: "Note values are called",
    choices: {
      crotchets: ["crotchets and quavers", "minim, crotchet, quaver"],
      "quarter-notes": ["quarter and eighth notes", "half, quarter, eighth note"],
    },
  },
  {
    key: "rhythm",
    title: "Rhythms are spoken",
    choices: {
      walking: ["walking", "walk, run-ning, slow, gal-lop"],
      sea: ["by the sea", "tide, rip-ple, swell, an-chor"],
      syllables: ["in syllables", "ta, ti-ti, too, tam-ti"],
    },
  },
];

/** The studio's words, and how each student finds notes on the page. */
export function Settings() {
  const words = useQuery(wordsQuery);
  const students = useQuery(studentsQuery);
  const activities = useQuery(activitiesQuery);
  const types = useQuery(exerciseTypesQuery);
  const meetings = useQuery(meetingActivitiesQuery);
  const save = useSaveWords();
  const approach = useApproach();
  if (words.isPending) return <Waiting />;
  if (words.error) return <Problem error={words.error} again={() => words.refetch()} />;
  const w = words.data;
  return (
    <div className="mx-auto max-w-5xl px-4 py-4 sm:px-6">
      <Title of="Ways of teaching" />
      <h1>How your studio teaches</h1>
      <p className="say mt-1">
        Teachers disagree, with reason: pick a way and change what you like; you decide.
      </p>
      <div className="mt-5 grid gap-8 lg:grid-cols-[1fr_20rem]">
        <Ways />
        <Holidays />
      </div>
      <h2 className="mt-8 border-t border-line pt-5 text-[1.6rem]">Words and ways of reading</h2>
      <p className="fine">Every page and practice sheet speaks as your studio does.</p>
      <div className="mt-5 grid gap-6 md:grid-cols-3">
        {groups.map((g) => (
          <Choice
            key={g.key}
            title={g.title}
            choices={g.choices}
            value={w[g.key]}
            busy={save.isPending}
            pick={(value) => save.mutate({ ...w, [g.key]: value })}
          />
        ))}
      </div>
      <div className="mt-8 grid gap-6 md:grid-cols-3">
        <Choice
          title="New pieces are read"
          choices={approaches}
          value={w.approach}
          busy={save.isPending}
          pick={(value) => save.mutate({ ...w, approach: value as Words["approach"] })}
        />
        <section aria-label="Students who read in another way" className="md:col-span-2">
          <h2>Students who read in another way</h2>
          <p className="fine">
            It decides which marks open first on a piece, and what the practice sheet says.
          </p>
          <ul className="mt-2">
            {students.data?.map((s) => (
              <li key={s.ladder} className="flex flex-wrap items-center justify-between gap-2 py-1">
                <label htmlFor={`a${s.ladder}`}>{s.name}</label>
                <select
                  id={`a${s.ladder}`}
                  value={s.approach}
                  disabled={approach.isPending}
                  onChange={(e) =>
                    approach.mutate({
                      ladder: s.ladder,
                      approach: e.target.value as Schemas["Student"]["approach"],
                    })
                  }
                >
                  <option value="">as the studio</option>
                  {Object.entries(approaches).map(([key, [name]]) => (
                    <option key={key} value={key}>
                      {name}
                    </option>
                  ))}
                </select>
              </li>
            ))}
          </ul>
        </section>
      </div>
      <Refused error={save.error ?? approach.error} />
      {activities.error && <Problem error={activities.error} again={() => activities.refetch()} />}
      {activities.data && <Activities goals={activities.data} />}
      {meetings.error && <Problem error={meetings.error} again={() => meetings.refetch()} />}
      {meetings.data && <Meetings all={meetings.data} />}
      {types.error && <Problem error={types.error} again={() => types.refetch()} />}
      {types.data && <Exercises types={types.data} />}
    </div>
  );
}

function Choice(props: {
  title: string;
  choices: Record<string, [name: string, says: string]>;
  value: string;
  busy: boolean;
  pick: (value: string) => void;
}) {
  return (
    <fieldset className="m-0 border-0 p-0" disabled={props.busy}>
      <legend className="font-head text-[1.4rem] font-semibold">{props.title}</legend>
      {Object.entries(props.choices).map(([key, [name, says]]) => (
        <label key={key} className="flex min-h-touch items-center gap-3 py-1">
          <input
            type="radio"
            name={props.title}
            className="size-5 min-h-0 shrink-0 accent-working"
            checked={props.value === key}
            onChange={() => props.pick(key)}
          />
          <span>
            {name}
            <span className="fine block">{says}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}
