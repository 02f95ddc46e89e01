import { MutationCache, QueryClient, useMutation } from "@tanstack/react-query";
import { Refusal } from "../contract/client";
import { announce, type Change, type Changes } from "./facts";
import { askAgain, unavailable, whenFresh } from "./kept";

/** How often a server that starts anew is asked again: for about a minute and a half, longer and longer apart. */
const startsAnew = 8;

/** Tries again when the network failed or the server is just starting, never when it refused. */
export const again = (count: number, error: Error) =>
  unavailable(error) ? count < startsAnew : !(error instanceof Refusal) && count < 4;

const resolve = (changes: Changes, sent: unknown) =>
  typeof changes === "function" ? changes(sent) : changes;

/** One memory of answers; what is asked anew follows from what each sending changes. */
export const newQueryClient = () => {
  const client: QueryClient = new QueryClient({
    defaultOptions: {
      // Without a connection a query answers with what is kept; it must not wait for one.
      queries: { retry: again, staleTime: 5_000, networkMode: "always" },
      mutations: { retry: again, networkMode: "always" },
    },
    mutationCache: new MutationCache({
      onSuccess: (answer, sent, _before, { meta }) => {
        if (!meta) return;
        if (meta.answers) client.setQueryData(meta.answers, answer);
        return announce(client, resolve(meta.changes, sent), meta.answers);
      },
      // What was changed elsewhere is shown beside the refusal.
      onError: (refused, sent, _before, { meta }) =>
        meta && !meta.stays?.(refused) ? announce(client, resolve(meta.changes, sent)) : undefined,
    }),
  });
  return client;
};

export const queryClient = newQueryClient();

askAgain(() => void queryClient.invalidateQueries());

whenFresh((key, answer) => {
  for (const q of queryClient.getQueryCache().findAll({ predicate: (q) => q.meta?.kept === key }))
    queryClient.setQueryData(q.queryKey, answer);
});

/** Sends something and says what it changes. */
export const useSend = <In = void, Out = unknown>(
  send: (what: In) => Promise<Out>,
  changes: readonly Change[] | ((what: In) => readonly Change[]),
  then?: (answer: Out, what: In) => unknown,
) =>
  useMutation<Out, Error, In>({ mutationFn: send, meta: { changes: changes as Changes }, onSuccess: then });
