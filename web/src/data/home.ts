import { queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { body, client, Refusal, type Schemas } from "../contract/client";
import { type Change, standing } from "./facts";
import { kept } from "./kept";
import { useSend } from "./queryClient";

export const weekQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "week"],
    queryFn: () => body(client.GET("/ladders/{ladder}/week", { params: { path: { ladder } } })),
    meta: { from: [...standing, "week", "family"], of: [ladder] },
  });

const changedOf = (e: Error | null) =>
  e instanceof Refusal && e.status === 409 && (e.answer as Schemas["WeekChanged"] | undefined)?.changes
    ? (e.answer as Schemas["WeekChanged"])
    : undefined;

/** The week of a ladder, changed by hand and solved again, and published. */
export function useWeek(ladder: string) {
  const week = useQuery(weekQuery(ladder));
  const queries = useQueryClient();
  const w = week.data;
  const key = weekQuery(ladder).queryKey;
  const at = { params: { path: { ladder }, query: { day: w?.start } } };
  const changes: Change[] = [{ fact: "week", of: ladder }];
  const solve = useMutation({
    mutationFn: (hand: Schemas["WeekByHand"]) =>
      body(client.PUT("/ladders/{ladder}/week", { ...at, body: hand })),
    meta: { changes, answers: key },
  });
  const publishing = useMutation({
    mutationFn: (p: { version: number; plan: string; asShown?: boolean }) =>
      body(client.POST("/ladders/{ladder}/week/publish", { ...at, body: p })),
    meta: {
      changes: [...changes, { fact: "messages" }],
      answers: key,
      // The week stays as it was shown until the teacher chose; any other refusal shows it as it is now.
      stays: (e: Error) => changedOf(e) !== undefined,
    },
  });
  return {
    week,
    w,
    change: (hand: Schemas["WeekByHand"]) => w && solve.mutate({ ...hand, version: w.hand.version }),
    publish: () => w && publishing.mutate({ version: w.hand.version, plan: w.plan }),
    /** What would be planned otherwise by now, when publishing found that. */
    changed: changedOf(publishing.error),
    publishAsShown: () => w && publishing.mutate({ version: w.hand.version, plan: w.plan, asShown: true }),
    showNew: () => {
      publishing.reset();
      void queries.invalidateQueries({ queryKey: key });
    },
    busy: solve.isPending || publishing.isPending,
    error: solve.error ?? (changedOf(publishing.error) ? null : publishing.error),
  };
}

export const useSavePractice = (ladder: string) =>
  useSend(
    (p: Schemas["Practice"]) =>
      body(client.PUT("/ladders/{ladder}/practice", { params: { path: { ladder } }, body: p })),
    [{ fact: "way", of: ladder }],
  );

/** How the family is reached: its address and its link. */
export function useFamilyWay(ladder: string) {
  const path = { params: { path: { ladder } } };
  const changes: Change[] = [{ fact: "family", of: ladder }];
  return {
    address: useSend(
      (email: string) => body(client.PUT("/ladders/{ladder}/family", { ...path, body: { email } })),
      changes,
    ),
    renew: useSend(
      () => body(client.POST("/ladders/{ladder}/family/link", { ...path, body: { days: 120 } })),
      changes,
    ),
    shut: useSend(() => client.DELETE("/ladders/{ladder}/family/link", path), changes),
  };
}

/** In which language a family is spoken to, and what it is sent. */
export const useWishes = (token: string) =>
  useSend(
    (w: Schemas["FamilyWishes"]) =>
      body(client.PUT("/family/{token}/wishes", { params: { path: { token } }, body: w })),
    [{ fact: "family", of: token }],
  );

/** The family's page at the week of today, or at one to come; the one of today is kept for when there is no connection. */
export const familyQuery = (token: string, week?: string) =>
  queryOptions({
    queryKey: week ? ["family", token, week] : ["family", token],
    queryFn: () =>
      kept(`at home ${token}${week ? ` ${week}` : ""}`, () =>
        body(
          client.GET("/family/{token}", {
            params: { path: { token }, query: { week, language: navigator.language } },
          }),
        ),
      ),
    placeholderData: (before: Schemas["FamilyPage"] | undefined) => before,
    meta: {
      from: [...standing, "week", "family"],
      of: [token],
      kept: `at home ${token}${week ? ` ${week}` : ""}`,
    },
  });

type Day = Schemas["FamilyDay"];

/**
 * The notes and the sound of what is to be done on a day of a family's week; kept like the page. They are asked for anew when
 * something else is to be done.
 */
export const scoresQuery = (token: string, day: Day | undefined, week?: string) =>
  queryOptions({
    queryKey: ["scores", token, day?.date, day?.items.map((i) => `${i.excerpt} ${i.music}`).join()],
    queryFn: () =>
      kept(`at home ${token} ${day?.date}`, () =>
        body(
          client.GET("/family/{token}/days/{day}", {
            params: { path: { token, day: day?.date ?? "" }, query: { week } },
          }),
        ),
      ),
    enabled: Boolean(day && day.items.length > 0),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: Number.POSITIVE_INFINITY,
    meta: { from: [], of: [token], kept: `at home ${token} ${day?.date}` },
  });

/** Takes the notes of days to come along while nothing else is to be done, so that they are there without a connection. */
export function useScoresAhead(token: string, days: Day[], week: string | undefined) {
  const queries = useQueryClient();
  useEffect(() => {
    let over = false;
    const later = setTimeout(async () => {
      for (const day of days) if (!over) await queries.prefetchQuery(scoresQuery(token, day, week));
    }, 500);
    return () => {
      over = true;
      clearTimeout(later);
    };
  }, [queries, token, days, week]);
}
