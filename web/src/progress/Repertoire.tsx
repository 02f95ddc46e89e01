import { useRepertoire } from "../data/programme";

/** What was learned so far, to be printed, and what was gone through to its end. */
export function Repertoire({ ladder }: { ladder: string }) {
  const repertoire = useRepertoire(ladder);
  if (!repertoire.data) return null;
  const { pieces, certificates } = repertoire.data;
  return (
    <section aria-label="Repertoire">
      <h2>Repertoire</h2>
      {pieces.length === 0 ? (
        <p className="fine">No piece is learned yet.</p>
      ) : (
        <>
          <p className="fine">
            {pieces.length === 1 ? "One piece" : `${pieces.length} pieces`}, the latest first
          </p>
          <div className="flex flex-wrap gap-x-2">
            <a className="quiet -ml-2.5" href={`/api/ladders/${ladder}/repertoire/pdf`}>
              On paper
            </a>
            <a className="quiet" href={`/api/ladders/${ladder}/repertoire/csv`}>
              As a table
            </a>
          </div>
        </>
      )}
      {certificates.map((c) => (
        <p key={c.id} className="border-t border-line/60 py-1 leading-snug">
          {c.title} <span className="fine">{c.when}</span>{" "}
          <a
            className="quiet"
            href={`/api/ladders/${ladder}/certificates/${c.id}`}
            target="_blank"
            rel="noreferrer"
          >
            Certificate
          </a>
        </p>
      ))}
    </section>
  );
}
