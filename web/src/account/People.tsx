import { type FormEvent, useState } from "react";
import type { Schemas } from "../contract/client";
import { useEndAccount, useInvite, useSetRole } from "../data/account";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

const roles: Record<Schemas["Role"], string> = {
  owner: "owner",
  teacher: "teacher",
  assistant: "assistant: sees and notes, publishes nothing",
};

function Roles(props: { name: string; value?: Schemas["Role"]; onPick?: (role: Schemas["Role"]) => void }) {
  return (
    <select
      name={props.name}
      aria-label="What somebody may do"
      defaultValue={props.value ?? "teacher"}
      onChange={(e) => props.onPick?.(e.target.value as Schemas["Role"])}
    >
      {Object.entries(roles).map(([id, name]) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

/** Who belongs to the studio; an owner invites, changes what somebody may do, and ends accounts. */
export function People({ people, mails }: { people: Schemas["Person"][]; mails: boolean }) {
  const invite = useInvite();
  const set = useSetRole();
  const end = useEndAccount();
  const [leaves, setLeaves] = useState<Schemas["Person"]>();
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const f = new FormData(form);
    invite.mutate(
      {
        email: String(f.get("email")),
        name: String(f.get("name")),
        role: String(f.get("role")) as Schemas["Role"],
      },
      { onSuccess: () => form.reset() },
    );
  };
  return (
    <section aria-label="People of the studio">
      <h2>People of the studio</h2>
      <ul className="mt-1 max-w-2xl">
        {people.map((p) => (
          <li
            key={p.id}
            className="flex flex-wrap items-center justify-between gap-x-3 border-t border-line/60 py-1.5"
          >
            <span>
              {p.name} <span className="fine block">{p.email}</span>
              {p.load && <span className="fine block">{p.load}</span>}
            </span>
            {p.here ? (
              <span className="fine">{p.role}, you</span>
            ) : (
              <span className="flex flex-wrap items-center gap-2">
                <Roles
                  name={`role ${p.id}`}
                  value={p.role}
                  onPick={(role) => set.mutate({ person: p.id, role })}
                />
                <button
                  type="button"
                  className="quiet"
                  aria-label={`End the account of ${p.name}`}
                  onClick={() => setLeaves(p)}
                >
                  End
                </button>
              </span>
            )}
          </li>
        ))}
      </ul>
      <Refused error={set.error} />
      <Sheet
        open={leaves !== undefined}
        onOpenChange={() => setLeaves(undefined)}
        title={`End the account of ${leaves?.name}?`}
        says="Nobody signs in with it any more. The students are the owner’s again; what was written stays."
      >
        <Refused error={end.error} />
        <button
          type="button"
          className="press press-main"
          disabled={end.isPending}
          onClick={() => leaves && end.mutate(leaves.id, { onSuccess: () => setLeaves(undefined) })}
        >
          End it
        </button>
      </Sheet>
      <details className="mt-2">
        <summary className="min-h-touch cursor-pointer py-2.5">Invite somebody</summary>
        <form onSubmit={send} className="grid max-w-md gap-3">
          <Field label="Name">
            <input name="name" required maxLength={200} />
          </Field>
          <Field label="E-mail">
            <input name="email" type="email" required maxLength={254} />
          </Field>
          <Roles name="role" />
          <Refused error={invite.error} />
          <button type="submit" className="press" disabled={invite.isPending}>
            {mails ? "Send the invitation" : "Make the link"}
          </button>
        </form>
      </details>
      {invite.data && (
        <p role="status" className="mt-2 max-w-2xl rounded-lg border border-line bg-sheet p-3">
          {invite.data.words}
          {invite.data.link && <code className="figures mt-1 block break-all">{invite.data.link}</code>}
        </p>
      )}
    </section>
  );
}
