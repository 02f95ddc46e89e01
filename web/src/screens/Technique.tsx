import { useQuery } from "@tanstack/react-query";
import { Link, useSearchParams } from "react-router";
import { device } from "../data/device";
import { instrumentsQuery, studentsQuery } from "../data/people";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Atlas } from "../technique/Atlas";
import { ExerciseView } from "../technique/ExerciseView";
import { StudentTechnique } from "../technique/StudentTechnique";

/** Under which the instrument that was looked at last is kept on this device. */
const looked = "technique instrument";

const lastLooked = (known: { id: string }[]) => known.find((i) => i.id === device.getItem(looked))?.id;

/** Technique as its own ladder: of one student, or of all students of an instrument. */
export function Technique() {
  const [params, setParams] = useSearchParams();
  const students = useQuery(studentsQuery);
  const instruments = useQuery(instrumentsQuery);
  if (students.isPending || instruments.isPending) return <Waiting />;
  if (students.error) return <Problem error={students.error} again={() => students.refetch()} />;
  if (instruments.error) return <Problem error={instruments.error} again={() => instruments.refetch()} />;
  const student = students.data.find((s) => s.ladder === params.get("ladder"));
  const most = instruments.data.find((i) => i.taughtMost)?.id ?? "";
  const instrument = student?.instrument ?? params.get("for") ?? lastLooked(instruments.data) ?? most;
  device.tryItem(looked, instrument);
  const exercise = params.get("exercise") ?? undefined;
  const open = (ladder: string | undefined, id?: string, other = instrument) =>
    setParams({ ...(ladder ? { ladder } : { for: other }), ...(id ? { exercise: id } : {}) });
  return (
    <div className="mx-auto max-w-[92rem] px-4 py-4 sm:px-6">
      <Title of={student ? `${student.name}, technique` : "Technique"} />
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <label className="flex min-w-0 flex-col">
          <span className="fine">whose technique</span>
          <select
            value={student?.ladder ?? `for ${instrument}`}
            onChange={(e) => {
              const [, name] = e.target.value.split("for ");
              if (name) open(undefined, undefined, name);
              else open(e.target.value);
            }}
          >
            <optgroup label="Everybody">
              {instruments.data
                .filter((i) => i.family !== "none")
                .map((i) => (
                  <option key={i.id} value={`for ${i.id}`}>
                    all who play the {i.id}
                  </option>
                ))}
            </optgroup>
            <optgroup label="One student">
              {students.data.map((s) => (
                <option key={s.ladder} value={s.ladder}>
                  {s.name}, {s.instrument}
                </option>
              ))}
            </optgroup>
          </select>
        </label>
        {student && (
          <Link to={`/lesson/${student.ladder}`} className="quiet">
            To the lesson
          </Link>
        )}
        <Link to="/technique/scale" className="quiet">
          Any scale, one to four octaves
        </Link>
      </div>
      {student ? (
        <StudentTechnique
          key={student.ladder}
          ladder={student.ladder}
          exercise={exercise}
          open={(id) => open(student.ladder, id)}
        />
      ) : (
        <div className="mt-4">
          <Atlas key={instrument} instrument={instrument} open={(ladder, id) => open(ladder, id)} />
          <div className="mt-8 border-t border-line pt-4">
            <ExerciseView instrument={instrument} exercise={exercise} open={(id) => open(undefined, id)} />
          </div>
        </div>
      )}
    </div>
  );
}
