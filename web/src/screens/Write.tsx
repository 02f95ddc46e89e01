import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { typedQuery, useAddPieces } from "../data/library";
import { studentsQuery } from "../data/people";
import { firstName } from "../data/words";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { StrandOptions } from "../parts/StrandOptions";
import { Title } from "../parts/Title";
import { Skipped } from "../piece/Skipped";
import { Engraving } from "../score/Engraving";

const opening = "T:A tune of mine\nM:4/4\nL:1/4\nK:C\nC D E F | G2 G2 | A G F E | D4 |\n";

/** How long the typing must pause before the tune is engraved, in milliseconds. */
const pause = 250;

/** A tune typed in ABC and engraved as it is typed. */
export function Write() {
  const [params] = useSearchParams();
  const ladder = params.get("ladder") ?? undefined;
  const students = useQuery(studentsQuery);
  const student = students.data?.find((s) => s.ladder === ladder);
  const [text, setText] = useState(opening);
  const [typed, setTyped] = useState(opening);
  useEffect(() => {
    const timer = setTimeout(() => setTyped(text), pause);
    return () => clearTimeout(timer);
  }, [text]);
  const tune = useQuery(typedQuery(typed));
  return (
    <div className="mx-auto max-w-[88rem] px-4 py-4 sm:px-6">
      <Title of="Type a tune" />
      <h1>Type a tune</h1>
      <p className="say mt-1">
        Letters are notes, numbers lengths, bars are bars; it is engraved as you type.
      </p>
      <div className="mt-4 grid gap-6 lg:grid-cols-[24rem_1fr]">
        <div className="grid content-start gap-3">
          <Field label="The tune in ABC">
            <textarea
              rows={10}
              spellCheck={false}
              value={text}
              maxLength={20000}
              onChange={(e) => setText(e.target.value)}
              className="rounded-md border-[1.5px] border-soft bg-sheet px-3 py-2"
            />
          </Field>
          <Help />
          <Refused error={tune.error} />
          {student ? (
            <Keep student={student} text={text} ready={tune.isSuccess && !tune.isPlaceholderData} />
          ) : (
            <p className="fine">
              To keep a tune, open this page from a student’s <Link to="/">ladder</Link>, with “Add a piece”.
            </p>
          )}
        </div>
        <div className="max-lg:order-first">
          <div className="min-h-48 rounded-lg border border-line bg-sheet px-2 py-6 sm:px-5">
            {tune.data && <Engraving xml={tune.data.musicxml} />}
          </div>
          {tune.data && <Skipped list={tune.data.skipped} />}
        </div>
      </div>
    </div>
  );
}

function Help() {
  return (
    <details className="fine">
      <summary className="min-h-touch content-center">How a tune is typed</summary>
      <dl className="grid grid-cols-[8rem_1fr] gap-x-3 gap-y-1">
        {[
          ["C D E c d", "from middle C; small letters are the octave above"],
          ["C, c'", "an octave lower, higher"],
          ["C2 C/ C3/2", "twice, half, one and a half times the unit L:"],
          ["^F _B =F", "sharp, flat, natural"],
          ["z | |: :|", "rest, bar line, repeats"],
          ["(CDE) C-C", "slur, tie"],
          ["[CEG] (3CDE", "chord, triplet"],
          ["!2!C .C !p!", "finger, short, dynamics"],
          ["V:1 V:2 clef=bass", "two hands, each from its line on"],
        ].map(([code, what]) => (
          <div key={code} className="contents">
            <dt>{code}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}

function Keep(props: { student: Schemas["Student"]; text: string; ready: boolean }) {
  const { student, text } = props;
  const [id] = useState(ulid);
  const [strand, setStrand] = useState<Schemas["Strand"]>("repertoire");
  const navigate = useNavigate();
  const add = useAddPieces(student.ladder, (id) => navigate(`/piece/${id}?ladder=${student.ladder}`));
  const keep = () => {
    const bytes = new TextEncoder().encode(text);
    const score = btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(""));
    add.mutate([{ id, strand, instrument: student.instrument, fileName: "typed tune.abc", score }]);
  };
  return (
    <>
      <Field label="Strand">
        <select value={strand} onChange={(e) => setStrand(e.target.value as Schemas["Strand"])}>
          <StrandOptions />
        </select>
      </Field>
      <Refused error={add.error} />
      <button
        type="button"
        className="press press-main"
        disabled={!props.ready || add.isPending}
        onClick={() => keep()}
      >
        Keep it and put it on {firstName(student.name)}’s ladder
      </button>
    </>
  );
}
