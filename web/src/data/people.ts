import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { clock } from "./clock";
import { forgetKept, keepFor, kept } from "./kept";
import { beginLeaving, leave } from "./leave";
import { again, useSend } from "./queryClient";

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: async () => {
    await leave();
    const me = await kept("session", () => body(client.GET("/session")));
    keepFor(me.id);
    return me;
  },
  meta: { from: ["account", "people"], kept: "session" },
  staleTime: 60_000,
});

export const useSession = (enabled = true) => useQuery({ ...sessionQuery, enabled });

/** The day of the studio, as 2026-05-05. */
export function useToday(): string {
  const session = useQuery(sessionQuery);
  return clock.today(session.data?.timezone);
}

/** On which a week of the studio begins, 0 for Sunday. */
export function useFirstDay(): number {
  const session = useQuery(sessionQuery);
  return session.data?.firstDay ?? 1;
}

/** Signs in; nothing of who was there before stays. Where a code is needed as well, there is no answer yet. */
export function useSignIn(then: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (who: { email: string; password: string; code?: string }) => {
      await leave();
      const me = await body(client.POST("/session", { body: who }));
      return me || undefined;
    },
    retry: again,
    onSuccess: (me) => {
      if (!me) return;
      queries.clear();
      forgetKept();
      keepFor(me.id);
      queries.setQueryData(sessionQuery.queryKey, me);
      then();
    },
  });
}

/** Signs out at once, also without a connection: what is kept goes now, the session when the server can be told. */
export function useSignOut(then: () => void) {
  const queries = useQueryClient();
  return () => {
    beginLeaving();
    forgetKept();
    queries.clear();
    void leave().catch(() => undefined);
    then();
  };
}

export const studentsQuery = queryOptions({
  queryKey: ["students"],
  queryFn: () => body(client.GET("/students")),
  meta: { from: ["people", "way", "calendar"] },
});

export const useStudents = (enabled = true) => useQuery({ ...studentsQuery, enabled });

export const useAddStudent = (then: (student: Schemas["Student"]) => void) =>
  useSend(
    (student: Schemas["NewStudent"]) => body(client.POST("/students", { body: student })),
    [{ fact: "people" }, { fact: "ladder" }, { fact: "log" }],
    then,
  );

export const studentQuery = (student: string) =>
  queryOptions({
    queryKey: ["student", student],
    queryFn: () => body(client.GET("/students/{student}", { params: { path: { student } } })),
    meta: { from: ["people", "calendar", "log"] },
  });

export const useSavePerson = (student: string, then?: () => void) =>
  useSend(
    (change: Schemas["PersonChange"]) =>
      body(client.PATCH("/students/{student}", { params: { path: { student } }, body: change })),
    [{ fact: "people" }, { fact: "family" }],
    then,
  );

export const useAddInstrument = (student: string, then?: () => void) =>
  useSend(
    (x: Schemas["NewInstrument"]) =>
      body(client.POST("/students/{student}/ladders", { params: { path: { student } }, body: x })),
    [{ fact: "people" }, { fact: "calendar" }],
    then,
  );

export const useChangeInstrument = (then?: (s: Schemas["Student"]) => void) =>
  useSend(
    (x: { ladder: string; instrument: string; next: string; sure: boolean }) =>
      body(
        client.PUT("/ladders/{ladder}/instrument", {
          params: { path: { ladder: x.ladder } },
          body: { instrument: x.instrument, ladder: x.next, sure: x.sure },
        }),
      ),
    [{ fact: "people" }, { fact: "calendar" }],
    then,
  );

/** Ends the lessons on an instrument from a day on, or with none takes them up again. */
export const useEndInstrument = () =>
  useSend(
    (x: { ladder: string; from?: string }) =>
      x.from
        ? body(
            client.PUT("/ladders/{ladder}/ended", {
              params: { path: { ladder: x.ladder } },
              body: { from: x.from },
            }),
          )
        : body(client.DELETE("/ladders/{ladder}/ended", { params: { path: { ladder: x.ladder } } })),
    [{ fact: "people" }, { fact: "calendar" }],
  );

export const useSetPause = (student: string, then?: () => void) =>
  useSend(
    (x: { id: string; first: string; last?: string }) =>
      body(
        client.PUT("/students/{student}/pauses/{pause}", {
          params: { path: { student, pause: x.id } },
          body: { first: x.first, last: x.last },
        }),
      ),
    [{ fact: "people" }, { fact: "calendar" }],
    then,
  );

export const useRemovePause = (student: string) =>
  useSend(
    (pause: string) =>
      body(client.DELETE("/students/{student}/pauses/{pause}", { params: { path: { student, pause } } })),
    [{ fact: "people" }, { fact: "calendar" }],
  );

/** The student leaves on a day; without one they are back. */
export const useLeave = (student: string) =>
  useSend(
    (from?: string) =>
      from
        ? body(client.PUT("/students/{student}/left", { params: { path: { student } }, body: { from } }))
        : body(client.DELETE("/students/{student}/left", { params: { path: { student } } })),
    [{ fact: "people" }, { fact: "calendar" }],
  );

export const instrumentsQuery = queryOptions({
  queryKey: ["instruments"],
  queryFn: () => body(client.GET("/instruments")),
  meta: { from: ["people"] },
  staleTime: Number.POSITIVE_INFINITY,
});

/** The family of an instrument; keyboard until the list of instruments is there. */
export function useFamily(instrument: string) {
  const instruments = useQuery(instrumentsQuery);
  return instruments.data?.find((i) => i.id === instrument)?.family ?? "keyboard";
}

/** The names of the instruments that can be taught, the given one among them in any case. */
export function useInstruments(chosen: string) {
  const instruments = useQuery(instrumentsQuery);
  return instruments.data?.map((i) => i.id) ?? [chosen];
}

export const wordsQuery = queryOptions({
  queryKey: ["words"],
  queryFn: () => body(client.GET("/words")),
  meta: { from: ["words"] },
});

export const activitiesQuery = queryOptions({
  queryKey: ["activities"],
  queryFn: () => body(client.GET("/activities")),
  meta: { from: ["library"] },
});

/** Changes an activity of the studio, or adds one. */
export const useSetActivity = () =>
  useSend(
    (a: { id: string; as: Schemas["NewActivity"] }) =>
      body(client.PUT("/activities/{activity}", { params: { path: { activity: a.id } }, body: a.as })),
    [{ fact: "library" }],
  );

/** The program's own comes back; one of the studio's goes. */
export const useResetActivity = () =>
  useSend(
    (id: string) => body(client.DELETE("/activities/{activity}", { params: { path: { activity: id } } })),
    [{ fact: "library" }],
  );

/** The names of notes are written into nearly every sentence. */
export const useSaveWords = () =>
  useSend((w: Schemas["Words"]) => body(client.PUT("/words", { body: w })), [{ fact: "words" }]);

export const useApproach = () =>
  useSend(
    (a: { ladder: string; approach: Schemas["Student"]["approach"] }) =>
      body(
        client.PUT("/ladders/{ladder}/approach", {
          params: { path: { ladder: a.ladder } },
          body: { approach: a.approach },
        }),
      ),
    [{ fact: "way" }, { fact: "people" }],
  );

/** Whose way it is: a student's by the ladder, "mine" for a teacher's own, nothing for the studio's. */
const whose = (of?: string) => (of === "mine" ? { whose: "mine" as const } : { ladder: of });

export const wayQuery = (of?: string) =>
  queryOptions({
    queryKey: ["way", of],
    queryFn: () => body(client.GET("/way", { params: { query: whose(of) } })),
    meta: { from: ["way", "people"] },
  });

export const useWay = (of?: string) => useQuery(wayQuery(of));

/** Asks what another way of teaching would do. */
export const useTryWay = (of?: string) =>
  useSend((w: Schemas["Way"]) => body(client.POST("/way", { params: { query: whose(of) }, body: w })), []);

export const useSaveWay = (version: number, of?: string) =>
  useSend(
    (w: Schemas["Way"]) =>
      body(client.PUT("/way", { params: { query: { ...whose(of), version } }, body: w })),
    [{ fact: "way", of: of === "mine" ? undefined : of }],
  );

export const holidaysQuery = queryOptions({
  queryKey: ["holidays"],
  queryFn: () => body(client.GET("/holidays")),
  meta: { from: ["calendar"] },
});

export const useHolidays = (enabled = true) => useQuery({ ...holidaysQuery, enabled });

export const useAddHoliday = (then: () => void) =>
  useSend(
    ({ id, ...h }: { id: string; name: string; first: string; last: string; student?: string }) =>
      body(client.PUT("/holidays/{holiday}", { params: { path: { holiday: id } }, body: h })),
    [{ fact: "calendar" }],
    then,
  );

export const useRemoveHoliday = () =>
  useSend(
    (holiday: string) => body(client.DELETE("/holidays/{holiday}", { params: { path: { holiday } } })),
    [{ fact: "calendar" }],
  );

export const messagesQuery = queryOptions({
  queryKey: ["messages"],
  queryFn: () => body(client.GET("/messages")),
  meta: { from: ["messages"] },
});

/** What families wrote. */
export const notesQuery = queryOptions({
  queryKey: ["notes"],
  queryFn: () => body(client.GET("/notes")),
  meta: { from: ["family", "messages"] },
});

/** Answers what a family wrote; an empty answer puts it away. */
export const useAnswer = () =>
  useSend(
    (a: { note: string; answer: string }) =>
      body(client.PUT("/notes/{note}", { params: { path: { note: a.note } }, body: { answer: a.answer } })),
    [{ fact: "messages" }, { fact: "family" }],
  );

export const useSendAgain = () =>
  useSend(
    (message: string) => body(client.POST("/messages/{message}/again", { params: { path: { message } } })),
    [{ fact: "messages" }],
  );
