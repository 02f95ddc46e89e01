import { useQuery } from "@tanstack/react-query";
import { Passkeys } from "../account/Passkeys";
import { Password } from "../account/Password";
import { People } from "../account/People";
import { Second } from "../account/Second";
import { Sessions } from "../account/Sessions";
import { Studio } from "../account/Studio";
import { accountQuery } from "../data/account";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";

/** One's own account: the password, the second factor, where it is signed in; for an owner, who belongs to the studio. */
export function Account() {
  const account = useQuery(accountQuery);
  if (account.isPending) return <Waiting />;
  if (!account.data) return <Problem error={account.error} again={() => account.refetch()} />;
  const a = account.data;
  return (
    <div className="mx-auto max-w-5xl px-4 py-4 sm:px-6">
      <Title of="Account" />
      <h1>{a.name}</h1>
      <p className="fine">
        {a.email}, {a.role}
      </p>
      <div className="mt-5 grid gap-x-12 gap-y-8 lg:grid-cols-2">
        <div className="grid min-w-0 content-start gap-8">
          <Password />
          <Second on={a.second} codes={a.codes} />
          <Passkeys keys={a.passkeys} may={a.mayPasskey} />
          <Sessions sessions={a.sessions} />
        </div>
        <div className="grid min-w-0 content-start gap-8">
          {a.people.length > 0 && <People people={a.people} mails={a.mails} />}
          {a.role === "owner" && <Studio studio={a.studio} />}
          {a.done.length > 0 && (
            <section aria-label="What was done">
              <h2>What was done</h2>
              <ul className="mt-1 max-h-64 overflow-y-auto">
                {a.done.map((d) => (
                  <li key={d.id} className="border-t border-line/60 py-1 text-[0.95rem]">
                    {d.name}
                  </li>
                ))}
              </ul>
            </section>
          )}
        </div>
      </div>
      <p className="fine mt-8">
        The fonts are free, under the SIL Open Font License:{" "}
        <a className="underline underline-offset-4" href="/licences/atkinson-hyperlegible-next.txt">
          Atkinson Hyperlegible Next
        </a>
        ,{" "}
        <a className="underline underline-offset-4" href="/licences/brygada-1918.txt">
          Brygada 1918
        </a>
        .
      </p>
    </div>
  );
}
