import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { studentQuery } from "../data/people";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Away } from "../student/Away";
import { Data } from "../student/Data";
import { Instruments } from "../student/Instruments";
import { PersonForm } from "../student/PersonForm";

/** Who a student is, which instruments and lessons there are, pauses and leaving. */
export function Student() {
  const { student = "" } = useParams();
  const page = useQuery(studentQuery(student));
  if (page.isPending) return <Waiting />;
  if (page.error) return <Problem error={page.error} again={() => page.refetch()} />;
  const p = page.data;
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of={p.name} />
      <p className="fine">
        {p.bornAbout ? "about " : ""}
        {p.age} years
      </p>
      <h1 className="break-words">{p.name}</h1>
      <p className="say mt-1">{p.sentence}</p>
      <div className="mt-4 grid gap-x-10 gap-y-8 lg:grid-cols-2">
        <div className="grid content-start gap-8">
          <Instruments of={p} />
          <Away of={p} />
          <Data of={p} />
        </div>
        <PersonForm key={p.version} of={p} />
      </div>
    </div>
  );
}
