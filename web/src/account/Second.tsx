import type { FormEvent } from "react";
import { useBeginSecond, useEndSecond, useSetSecond } from "../data/account";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";

/** The second factor: a code of an app on the phone beside the password. */
export function Second({ on, codes }: { on: boolean; codes: number }) {
  const begin = useBeginSecond();
  const set = useSetSecond();
  const end = useEndSecond(() => {
    begin.reset();
    set.reset();
  });
  const secret = begin.data;
  const give = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const given = new FormData(e.currentTarget);
    if (secret)
      set.mutate({
        secret: secret.secret,
        code: String(given.get("code")),
        password: String(given.get("password")),
      });
  };
  const off = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    end.mutate(String(new FormData(e.currentTarget).get("password")));
  };
  return (
    <section aria-label="A code beside the password">
      <h2>A code beside the password</h2>
      {set.data && (
        <div className="mt-2 max-w-xl rounded-lg border border-line bg-sheet p-4">
          <p>
            Write these down now: each signs you in once when the phone is lost, and they are not shown again.
          </p>
          <ul className="figures mt-2 grid grid-cols-2 gap-1">
            {set.data.codes.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </div>
      )}
      {on ? (
        <>
          <p className="mt-1">A code of your app is asked for when you sign in.</p>
          <p className="fine">
            {codes === 1 ? "One recovery code is left." : `${codes} recovery codes are left.`}
          </p>
          <details>
            <summary className="fine min-h-touch cursor-pointer py-2.5">Switch it off</summary>
            <form onSubmit={off} className="grid max-w-md gap-3">
              <Field label="Your password">
                <input name="password" type="password" autoComplete="current-password" required />
              </Field>
              <Refused error={end.error} />
              <button type="submit" className="press" disabled={end.isPending}>
                A password is enough
              </button>
            </form>
          </details>
        </>
      ) : secret ? (
        <div className="mt-2 flex max-w-xl flex-wrap gap-5">
          <img
            src={secret.picture}
            alt="What the app scans to know the secret"
            width="200"
            height="200"
            className="size-50 self-start rounded bg-white"
          />
          <form onSubmit={give} className="grid min-w-56 flex-1 content-start gap-3">
            <p>Scan it with an authenticator app, or type this there:</p>
            <code className="figures break-all text-[0.9rem]">{secret.secret}</code>
            <Field label="The six digits that it shows">
              <input name="code" inputMode="numeric" autoComplete="one-time-code" maxLength={10} required />
            </Field>
            <Field label="Your password">
              <input name="password" type="password" autoComplete="current-password" required />
            </Field>
            <Refused error={set.error} />
            <button type="submit" className="press press-main" disabled={set.isPending}>
              Switch it on
            </button>
          </form>
        </div>
      ) : (
        <>
          <p className="mt-1">
            With it, nobody signs in who only knows your password. It needs an authenticator app on your
            phone.
          </p>
          <Refused error={begin.error} />
          <button
            type="button"
            className="press mt-2"
            disabled={begin.isPending}
            onClick={() => begin.mutate()}
          >
            Set it up
          </button>
        </>
      )}
    </section>
  );
}
