import { type FormEvent, useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { useByLink } from "../data/account";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";

const says = {
  recovery: { title: "A new password", words: "Every device is signed out; then you sign in with it." },
  invitation: { title: "Your account", words: "Choose a password; then you sign in with it." },
};

/** What a link opens once: a new password, or the first one of an account. What opens it stands behind the #. */
export function ByLink({ kind }: { kind: "recovery" | "invitation" }) {
  const navigate = useNavigate();
  const token = useLocation().hash.slice(1);
  const [done, setDone] = useState(false);
  const set = useByLink(kind, () => setDone(true));
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    set.mutate({ token, password: String(new FormData(e.currentTarget).get("password")) });
  };
  return (
    <main className="mx-auto grid min-h-dvh max-w-md content-center px-6 py-10">
      <h1>{says[kind].title}</h1>
      {done ? (
        <>
          <p className="say mt-2">It holds now.</p>
          <button type="button" className="press press-main mt-4" onClick={() => navigate("/sign-in")}>
            Sign in
          </button>
        </>
      ) : (
        <form onSubmit={send} className="mt-4 grid gap-4">
          <p>{says[kind].words}</p>
          <Field label="Password">
            <input name="password" type="password" autoComplete="new-password" required minLength={8} />
          </Field>
          <p className="fine">Four words that do not belong together are good.</p>
          <Refused error={set.error} />
          <button type="submit" className="press press-main" disabled={set.isPending}>
            Keep it
          </button>
          <Link to="/sign-in" className="quiet -ml-2 justify-self-start">
            To the sign-in
          </Link>
        </form>
      )}
    </main>
  );
}
