import type { FormEvent } from "react";
import { useChangePassword } from "../data/account";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";

/** A new password; every other device is signed out. */
export function Password() {
  const change = useChangePassword();
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const f = new FormData(form);
    change.mutate(
      { current: String(f.get("current")), password: String(f.get("password")) },
      { onSuccess: () => form.reset() },
    );
  };
  return (
    <section aria-label="Password">
      <h2>Password</h2>
      <form onSubmit={send} className="mt-2 grid max-w-md gap-3">
        <Field label="The one you have">
          <input name="current" type="password" autoComplete="current-password" required />
        </Field>
        <Field label="The new one">
          <input name="password" type="password" autoComplete="new-password" required minLength={8} />
        </Field>
        <Refused error={change.error} />
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="press" disabled={change.isPending}>
            Change the password
          </button>
          <span role="status" className="fine">
            {change.data?.words ?? "Four words that do not belong together are good."}
          </span>
        </div>
      </form>
    </section>
  );
}
