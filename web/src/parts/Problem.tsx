/** A failed call: the sentence of the server, and a way to go on. */
export function Problem({ error, again }: { error: Error; again?: () => void }) {
  return (
    <div role="alert" className="mx-auto my-10 max-w-xl px-4">
      <p className="say">{error.message}</p>
      {again && (
        <button type="button" className="press mt-4" onClick={again}>
          Try again
        </button>
      )}
    </div>
  );
}

/** A short refusal beside the thing that was refused. */
export function Refused({ error }: { error: Error | null }) {
  if (!error) return null;
  return (
    <p role="alert" className="border-l-4 border-cliff bg-fold px-3 py-2">
      {error.message}
    </p>
  );
}

/** Shown while something is on its way. */
export function Waiting() {
  return (
    <p role="status" className="fine px-6 py-8">
      One moment …
    </p>
  );
}
