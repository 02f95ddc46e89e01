import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { useSend } from "./queryClient";

export const accountQuery = queryOptions({
  queryKey: ["account"],
  queryFn: () => body(client.GET("/account")),
  meta: { from: ["account"] },
});

const changes = [{ fact: "account" }] as const;

/** Asks for a letter with a link for a new password. */
export const useAskForPassword = () =>
  useMutation({ mutationFn: (email: string) => body(client.POST("/recovery", { body: { email } })) });

/** Sets a password with what stands in a link: a new one, or the first of an account. */
export function useByLink(kind: "recovery" | "invitation", then: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (sent: Schemas["ByLink"]) =>
      body(
        kind === "recovery"
          ? client.PUT("/recovery", { body: sent })
          : client.PUT("/invitation", { body: sent }),
      ),
    onSuccess: () => {
      queries.clear();
      then();
    },
  });
}

export const useChangePassword = () =>
  useSend(
    (sent: { current: string; password: string }) => body(client.PUT("/account/password", { body: sent })),
    changes,
  );

export const useEndSession = () =>
  useSend(
    (session: string) =>
      body(client.DELETE("/account/sessions/{session}", { params: { path: { session } } })),
    changes,
  );

export const useEndOtherSessions = () => useSend(() => body(client.DELETE("/account/sessions")), changes);

export const useBeginSecond = () => useMutation({ mutationFn: () => body(client.POST("/account/second")) });

export const useSetSecond = () =>
  useSend(
    (sent: { secret: string; code: string; password: string }) =>
      body(client.PUT("/account/second", { body: sent })),
    changes,
  );

export const useEndSecond = (then: () => void) =>
  useSend(
    (password: string) => body(client.POST("/account/second/off", { body: { password } })),
    changes,
    then,
  );

export const useInvite = () =>
  useSend(
    (sent: { email: string; name: string; role: Schemas["Role"] }) =>
      body(client.POST("/account/people", { body: sent })),
    changes,
  );

export const useSetRole = () =>
  useSend(
    (sent: { person: string; role: Schemas["Role"] }) =>
      body(
        client.PUT("/account/people/{person}", {
          params: { path: { person: sent.person } },
          body: { role: sent.role },
        }),
      ),
    changes,
  );

export const useEndAccount = () =>
  useSend(
    (person: string) => body(client.DELETE("/account/people/{person}", { params: { path: { person } } })),
    changes,
  );

export const useSetStudio = () =>
  useSend(
    (sent: Schemas["StudioSettings"]) => body(client.PUT("/account/studio", { body: sent })),
    [{ fact: "account" }, { fact: "words" }, { fact: "calendar" }],
  );

/** Everything about a student goes in a day. */
export const useEraseStudent = (student: string, then: () => void) =>
  useSend(
    () => body(client.DELETE("/students/{student}/data", { params: { path: { student } } })),
    [{ fact: "people" }],
    then,
  );

/** Takes a deletion back. */
export const useKeepStudent = (student: string) =>
  useSend(
    () => body(client.PUT("/students/{student}/data", { params: { path: { student } } })),
    [{ fact: "people" }],
  );

/** Hands a student over to a colleague, for good or for a day. */
export const useGiveStudent = (ladder: string) =>
  useSend(
    (sent: { teacher: string; day?: string }) =>
      body(client.PUT("/ladders/{ladder}/teacher", { params: { path: { ladder } }, body: sent })),
    [{ fact: "people" }, { fact: "calendar" }, { fact: "account" }],
  );
