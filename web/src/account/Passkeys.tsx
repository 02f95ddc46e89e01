import type { FormEvent } from "react";
import type { Schemas } from "../contract/client";
import { hasPasskeys, useAddPasskey, useDropPasskey } from "../data/passkey";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";

/** Passkeys: a finger or a code of the device instead of a password. */
export function Passkeys({ keys, may }: { keys: Schemas["Choice"][]; may: boolean }) {
  const add = useAddPasskey();
  const drop = useDropPasskey();
  const make = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    add.mutate(String(new FormData(form).get("password")), { onSuccess: () => form.reset() });
  };
  return (
    <section aria-label="Passkeys">
      <h2>Passkeys</h2>
      <p className="mt-1">
        {may
          ? "Sign in with a finger, a face or the code of this device instead of a password."
          : "They need a page with a name and HTTPS, which this server does not have."}
      </p>
      <ul className="mt-1 max-w-xl">
        {keys.map((k) => (
          <li
            key={k.id}
            className="flex min-h-touch items-center justify-between gap-3 border-t border-line/60"
          >
            {k.name}
            <button
              type="button"
              className="quiet"
              disabled={drop.isPending}
              aria-label={`Take away: ${k.name}`}
              onClick={() => drop.mutate(k.id)}
            >
              Take away
            </button>
          </li>
        ))}
      </ul>
      <Refused error={add.error ?? drop.error} />
      {may && hasPasskeys() && (
        <form onSubmit={make} className="mt-2 flex max-w-xl flex-wrap items-end gap-3">
          <Field label="Your password">
            <input name="password" type="password" autoComplete="current-password" required />
          </Field>
          <button type="submit" className="press" disabled={add.isPending}>
            Make one on this device
          </button>
        </form>
      )}
    </section>
  );
}
