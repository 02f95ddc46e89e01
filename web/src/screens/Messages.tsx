import { useQuery } from "@tanstack/react-query";
import type { Schemas } from "../contract/client";
import { messagesQuery, notesQuery, useAnswer, useSendAgain } from "../data/people";
import { shortDate } from "../data/words";
import { FromHome } from "../overview/FromHome";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";

const states: Record<Schemas["Message"]["state"], string> = {
  kept: "kept here: no mail server is set",
  waiting: "waits to be sent",
  sent: "sent",
  failed: "could not be sent",
};

/** What families wrote, and the mailbox: what goes to them and what became of it. */
export function Messages() {
  const messages = useQuery(messagesQuery);
  const notes = useQuery(notesQuery);
  const answer = useAnswer();
  const again = useSendAgain();
  if (messages.isPending || notes.isPending) return <Waiting />;
  if (notes.error) return <Problem error={notes.error} again={() => notes.refetch()} />;
  if (messages.error) return <Problem error={messages.error} again={() => messages.refetch()} />;
  const list = messages.data;
  return (
    <div className="mx-auto max-w-3xl px-4 py-4 sm:px-6">
      <Title of="Messages" />
      <h1 className="text-[1.6rem]">From home</h1>
      <Refused error={answer.error} />
      <FromHome
        notes={notes.data}
        busy={answer.isPending}
        answer={(note, text) => answer.mutate({ note, answer: text })}
      />
      <h2 className="mt-8">
        {list.length === 0
          ? "The mailbox is empty."
          : `${list.length} ${list.length === 1 ? "message" : "messages"} to families.`}
      </h2>
      <p className="fine mt-1">
        A message is written when a week is published and the family has an address. Only the link is in it,
        nothing about the child beyond the first name.
      </p>
      <Refused error={again.error} />
      <ol className="mt-4">
        {list.map((m) => (
          <li key={m.id} className="border-t border-line py-3">
            <div className="flex flex-wrap items-baseline justify-between gap-x-4">
              <h3 className="text-lg">{m.subject}</h3>
              <p className="fine">{shortDate(m.madeAt)}</p>
            </div>
            <p className="fine">
              to {m.to} · {states[m.state]}
              {m.failure && `: ${m.failure}`}
            </p>
            <p className="mt-2 whitespace-pre-line break-words">{m.body}</p>
            {(m.state === "failed" || (m.state === "waiting" && m.failure)) && (
              <button
                type="button"
                className="press mt-2"
                disabled={again.isPending}
                onClick={() => again.mutate(m.id)}
              >
                Try again
              </button>
            )}
          </li>
        ))}
      </ol>
    </div>
  );
}
