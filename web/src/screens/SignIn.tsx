import { type FormEvent, useState } from "react";
import { useLocation, useNavigate } from "react-router";
import { useAskForPassword } from "../data/account";
import { hasPasskeys, usePasskey } from "../data/passkey";
import { useSignIn } from "../data/people";
import { LookSwitch } from "../parts/LookSwitch";
import { Refused } from "../parts/Problem";
import { Field } from "../parts/Sheet";

export function SignIn() {
  const navigate = useNavigate();
  const back = (useLocation().state as { back?: string } | null)?.back ?? "/";
  const signIn = useSignIn(() => navigate(back, { replace: true }));
  const passkey = usePasskey(() => navigate(back, { replace: true }));
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const code = String(f.get("code") ?? "").trim();
    signIn.mutate({
      email: String(f.get("email")),
      password: String(f.get("password")),
      ...(code && { code }),
    });
  };
  const [forgotten, setForgotten] = useState(false);
  const [asked, setAsked] = useState(false);
  if (signIn.isSuccess && !signIn.data && !asked) setAsked(true);
  return (
    <main className="grid min-h-dvh md:grid-cols-[1fr_minmax(24rem,30rem)]">
      <Rungs />
      <div className="flex flex-col justify-center border-line bg-sheet px-6 py-10 md:border-l md:px-12">
        <h1 className="text-[2.6rem]">Patient Ladder</h1>
        <p className="say mt-2 text-soft">What is new in the next piece, and what to do on Tuesday.</p>
        <form onSubmit={send} className="mt-8 grid gap-4">
          <Field label="E-mail">
            <input name="email" type="email" autoComplete="username" required />
          </Field>
          <Field label="Password">
            <input name="password" type="password" autoComplete="current-password" required />
          </Field>
          {asked && (
            <Field label="The code of your app, or a recovery code">
              <input
                name="code"
                autoComplete="one-time-code"
                maxLength={40}
                required
                ref={(e) => e?.focus()}
              />
            </Field>
          )}
          <Refused error={signIn.error} />
          <button type="submit" className="press press-main" disabled={signIn.isPending}>
            Sign in
          </button>
        </form>
        {hasPasskeys() && (
          <button
            type="button"
            className="press mt-3"
            disabled={passkey.isPending}
            onClick={() => passkey.mutate()}
          >
            Use a passkey
          </button>
        )}
        <Refused error={passkey.error} />
        <button
          type="button"
          className="quiet mt-3 -ml-2 self-start"
          aria-expanded={forgotten}
          onClick={() => setForgotten(!forgotten)}
        >
          I forgot the password
        </button>
        {forgotten && <Forgotten />}
        <div className="mt-6 -ml-2">
          <LookSwitch />
        </div>
      </div>
    </main>
  );
}

/** Sends a letter with a link for a new password. */
function Forgotten() {
  const ask = useAskForPassword();
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    ask.mutate(String(new FormData(e.currentTarget).get("email")));
  };
  if (ask.data) return <p role="status">{ask.data.words}</p>;
  return (
    <form onSubmit={send} className="grid gap-3">
      <Field label="E-mail of your account">
        <input name="email" type="email" autoComplete="email" required />
      </Field>
      <Refused error={ask.error} />
      <button type="submit" className="press" disabled={ask.isPending}>
        Send me a link
      </button>
    </form>
  );
}

/** A ladder with uneven gaps, as every student's is. */
function Rungs() {
  const rungs = [40, 62, 120, 142, 168, 268, 290, 330, 352, 452, 478, 520, 545];
  return (
    <svg
      viewBox="0 0 400 600"
      className="sticky top-0 h-dvh w-full max-md:hidden"
      aria-hidden="true"
      preserveAspectRatio="xMidYMid slice"
    >
      <g transform="rotate(6 200 300)" fill="none" strokeLinecap="round">
        <path d="M140-60v760M260-60v760" stroke="var(--color-line)" strokeWidth="5" />
        {rungs.map((y, i) => (
          <path
            key={y}
            d={`M140 ${y}h120`}
            stroke={i === 5 ? "var(--color-working)" : i < 5 ? "var(--color-ahead)" : "var(--color-review)"}
            strokeWidth={i === 5 ? 12 : 5}
            opacity={i > 5 ? 0.9 - (i - 5) * 0.09 : i < 5 ? 0.35 + i * 0.1 : 1}
          />
        ))}
        <circle cx="300" cy="168" r="9" stroke="var(--color-preview)" strokeWidth="4" />
        <path
          d="M300 177C310 220 290 240 268 262"
          stroke="var(--color-preview)"
          strokeWidth="2"
          strokeDasharray="2 7"
        />
      </g>
    </svg>
  );
}
