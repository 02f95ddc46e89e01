import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../contract/client";
import { performersQuery, usePrintProgramme, useProgramme } from "../data/programme";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Field } from "../parts/Sheet";
import { Title } from "../parts/Title";

type Piece = Schemas["ProgrammePiece"];

const same = (a: Piece, b: Piece) => a.ladder === b.ladder && a.material === b.material;

/** A recital: pieces chosen from what the students have learned, in the usual order or the teacher's. */
export function Programme() {
  const performers = useQuery(performersQuery);
  const [pieces, setPieces] = useState<Piece[]>([]);
  const [keepOrder, setKeep] = useState(false);
  const [title, setTitle] = useState("Recital");
  const [day, setDay] = useState("");
  const wanted = { title, day, keepOrder, pieces };
  const programme = useProgramme(wanted);
  const print = usePrintProgramme();
  if (performers.isPending) return <Waiting />;
  if (performers.error) return <Problem error={performers.error} again={() => performers.refetch()} />;
  const lines = programme.data?.lines ?? [];
  const toggle = (p: Piece) =>
    setPieces(pieces.some((x) => same(x, p)) ? pieces.filter((x) => !same(x, p)) : [...pieces, p]);
  const move = (at: number, by: number) => {
    const order = lines.map(({ ladder, material }) => ({ ladder, material }));
    const [moved] = order.splice(at, 1);
    if (moved) order.splice(at + by, 0, moved);
    setKeep(true);
    setPieces(order);
  };
  return (
    <div className="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <Title of="Recital" />
      <h1 className="text-[1.6rem]">{programme.data?.sentence ?? "A recital"}</h1>
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-2">
        <section aria-label="Pieces to choose from">
          <h2>Who plays what</h2>
          <p className="fine">Touch a piece to put it in. What is ready to be performed is marked.</p>
          {performers.data.length === 0 && <p className="mt-2">No student has learned a piece yet.</p>}
          {performers.data.map((s) => (
            <div key={s.ladder} className="mt-3 border-t border-line/60 pt-1">
              <h3>
                {s.name} <span className="fine font-normal">{s.instrument}</span>
              </h3>
              <div className="mt-1 flex flex-wrap gap-1.5">
                {s.pieces.map((p) => (
                  <button
                    key={p.material}
                    type="button"
                    aria-pressed={pieces.some((x) => same(x, { ladder: s.ladder, material: p.material }))}
                    onClick={() => toggle({ ladder: s.ladder, material: p.material })}
                    className="press border-line px-3 text-[0.95rem] aria-pressed:border-working aria-pressed:bg-fold"
                  >
                    {p.polished && <span className="text-good">✓</span>}
                    {p.title}
                    {p.lasts && <span className="fine figures">{p.lasts}</span>}
                  </button>
                ))}
              </div>
            </div>
          ))}
        </section>
        <section aria-label="The programme" className="self-start lg:sticky lg:top-3">
          <h2>The programme</h2>
          <div className="mt-1 grid gap-2 sm:grid-cols-2">
            <Field label="Title">
              <input value={title} maxLength={100} onChange={(e) => setTitle(e.target.value)} />
            </Field>
            <Field label="When and where">
              <input value={day} maxLength={100} onChange={(e) => setDay(e.target.value)} />
            </Field>
          </div>
          <ol className="mt-3">
            {lines.map((l, i) => (
              <li
                key={`${l.ladder} ${l.material}`}
                className="flex items-center gap-2 border-t border-line/60 leading-tight"
              >
                <span className="figures w-6 text-soft">{i + 1}</span>
                <span className="min-w-0 flex-1 py-1.5">
                  {l.title} <span className="fine figures">{l.lasts}</span>
                  <span className="fine block">{l.name}</span>
                </span>
                <button
                  type="button"
                  className="quiet px-2"
                  disabled={i === 0}
                  onClick={() => move(i, -1)}
                  aria-label={`${l.title} earlier`}
                >
                  ↑
                </button>
                <button
                  type="button"
                  className="quiet px-2"
                  disabled={i === lines.length - 1}
                  onClick={() => move(i, 1)}
                  aria-label={`${l.title} later`}
                >
                  ↓
                </button>
                <button
                  type="button"
                  className="quiet"
                  onClick={() => toggle(l)}
                  aria-label={`Take ${l.title} out`}
                >
                  Out
                </button>
              </li>
            ))}
          </ol>
          {keepOrder && lines.length > 1 && (
            <button type="button" className="quiet -ml-2.5" onClick={() => setKeep(false)}>
              In the usual order: the youngest first
            </button>
          )}
          <Refused error={programme.error ?? print.error} />
          <div className="mt-3 flex flex-wrap gap-2">
            <button
              type="button"
              className="press press-main"
              disabled={lines.length === 0 || print.isPending}
              onClick={() =>
                print.mutate({ format: "pdf", wanted: { ...wanted, pieces: order(lines), keepOrder: true } })
              }
            >
              On paper
            </button>
            <button
              type="button"
              className="press"
              disabled={lines.length === 0 || print.isPending}
              onClick={() =>
                print.mutate({ format: "csv", wanted: { ...wanted, pieces: order(lines), keepOrder: true } })
              }
            >
              As a table
            </button>
          </div>
        </section>
      </div>
    </div>
  );
}

const order = (lines: Schemas["ProgrammeLine"][]): Piece[] =>
  lines.map(({ ladder, material }) => ({ ladder, material }));
