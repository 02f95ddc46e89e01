import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../contract/client";
import { useFamilyWay } from "../data/home";
import { longDay } from "../data/words";
import { Refused } from "../parts/Problem";

/** How the family gets the week: the link, and the address to which it is sent. */
export function Family({ week }: { week: Schemas["Week"] }) {
  const ladder = week.student.ladder;
  const [email, setEmail] = useState(week.family.email);
  const [copied, setCopied] = useState(false);
  const { address, renew, shut } = useFamilyWay(ladder);
  const { link, expires } = week.family;
  const busy = renew.isPending || shut.isPending;
  return (
    <section aria-label="The family">
      <h2 className="text-lg">The family</h2>
      {link ? (
        <>
          <p>
            The page opens by its link, without an account, until {expires && longDay(expires)}. Whoever has
            the link can open it.
          </p>
          <div className="mt-1 flex flex-wrap gap-2">
            <a className="press" href={link} target="_blank" rel="noreferrer">
              Open the page
            </a>
            <button
              type="button"
              className="press"
              onClick={() =>
                navigator.clipboard.writeText(location.origin + link).then(() => setCopied(true))
              }
            >
              {copied ? "Copied" : "Copy the link"}
            </button>
            <button type="button" className="quiet" disabled={busy} onClick={() => renew.mutate()}>
              New link
            </button>
            <button type="button" className="quiet" disabled={busy} onClick={() => shut.mutate()}>
              Shut the link
            </button>
          </div>
        </>
      ) : (
        <p>
          There is no link yet; publishing makes one.{" "}
          <button type="button" className="quiet" disabled={busy} onClick={() => renew.mutate()}>
            Make a link now
          </button>
        </p>
      )}
      <form
        className="mt-2 flex flex-wrap items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          address.mutate(email);
        }}
      >
        <label className="flex min-w-56 flex-1 flex-col">
          <span className="fine">Family e-mail, used while no contact has agreed to messages (optional)</span>
          <input type="email" value={email} onChange={(e) => setEmail(e.target.value)} autoComplete="off" />
        </label>
        <button type="submit" className="press" disabled={address.isPending || email === week.family.email}>
          Keep
        </button>
      </form>
      {week.family.recipients.length > 0 && (
        <p className="mt-1 text-[0.95rem] [overflow-wrap:anywhere]">
          Messages go to {week.family.recipients.join(", ")}.{" "}
          <Link to={`/student/${week.student.student}`} className="underline">
            Contacts
          </Link>
        </p>
      )}
      <p className="fine mt-1">
        <Link to="/messages" className="underline">
          The mailbox
        </Link>{" "}
        shows what was sent. Agree with the guardian on who gets messages.
      </p>
      <Refused error={address.error ?? renew.error ?? shut.error} />
    </section>
  );
}
