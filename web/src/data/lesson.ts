import { queryOptions, useMutation, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { standing } from "./facts";
import { kept } from "./kept";
import { useSend } from "./queryClient";

export const todayQuery = (day?: string) =>
  queryOptions({
    queryKey: ["today", day],
    queryFn: () =>
      kept(`today ${day ?? ""}`, () => body(client.GET("/today", { params: { query: { day } } }))),
    meta: { from: [...standing, "plan", "week", "told"], kept: `today ${day ?? ""}` },
  });

/** The teacher has read which figures a new version moved. */
export const useTold = () =>
  useSend((number: number) => body(client.PUT("/told", { body: { number } })), [{ fact: "told" }]);

export const overviewQuery = queryOptions({
  queryKey: ["overview"],
  queryFn: () => body(client.GET("/overview")),
  meta: { from: [...standing, "week"] },
});

export const balanceQuery = queryOptions({
  queryKey: ["balance"],
  queryFn: () => body(client.GET("/balance")),
  meta: { from: standing },
});

export const useBalance = (enabled = true) => useQuery({ ...balanceQuery, enabled });

export const lessonQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "lesson"],
    queryFn: () =>
      kept(`lesson ${ladder}`, () =>
        body(client.GET("/ladders/{ladder}/lesson", { params: { path: { ladder } } })),
      ),
    meta: { from: [...standing, "plan", "week"], of: [ladder], kept: `lesson ${ladder}` },
  });

export const planQuery = (ladder: string, day?: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "plan", day],
    queryFn: () =>
      kept(`plan ${ladder} ${day ?? ""}`, () =>
        body(client.GET("/ladders/{ladder}/plan", { params: { path: { ladder }, query: { day } } })),
      ),
    meta: { from: [...standing, "plan", "week"], of: [ladder], kept: `plan ${ladder} ${day ?? ""}` },
  });

/** The plan of a lesson, and how it is changed by hand. */
export function usePlan(ladder: string, day?: string) {
  const plan = useQuery(planQuery(ladder, day));
  const solve = useMutation({
    mutationFn: (hand: Schemas["PlanByHand"]) =>
      body(
        client.PUT("/ladders/{ladder}/plan", { params: { path: { ladder }, query: { day } }, body: hand }),
      ),
    meta: { changes: [{ fact: "plan", of: ladder }], answers: planQuery(ladder, day).queryKey },
  });
  return { plan, solve };
}

/** Plans every lesson of a day that has no plan yet. */
export const usePlanDay = (day: string) =>
  useSend(() => body(client.POST("/plans", { params: { query: { day } } })), [{ fact: "plan" }]);

export const setupQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "setup"],
    queryFn: () => body(client.GET("/ladders/{ladder}/setup", { params: { path: { ladder } } })),
    meta: { from: ["log", "people"], of: [ladder] },
  });

/** Where somebody of these measures sits; it is asked, not kept. */
export const seatQuery = (ladder: string, measures: Schemas["Measures"]) =>
  queryOptions({
    queryKey: ["ladder", ladder, "seat", measures],
    queryFn: () =>
      body(client.POST("/ladders/{ladder}/setup", { params: { path: { ladder } }, body: measures })),
    meta: { from: ["people"], of: [ladder] },
    placeholderData: (before: Schemas["Seat"] | undefined) => before,
    retry: false,
  });

export const pastQuery = (ladder: string, search: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "past", search],
    queryFn: () =>
      body(
        client.GET("/ladders/{ladder}/past", {
          params: { path: { ladder }, query: { search: search || undefined } },
        }),
      ),
    meta: { from: [...standing], of: [ladder] },
    placeholderData: (before: Schemas["Past"] | undefined) => before,
  });

/** The lessons of the last weeks of which nothing was entered. */
export const notEnteredQuery = queryOptions({
  queryKey: ["not entered"],
  queryFn: () => body(client.GET("/not-entered")),
  meta: { from: standing },
});

export const pastDayQuery = (ladder: string, day: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "past day", day],
    queryFn: () => body(client.GET("/ladders/{ladder}/past/{day}", { params: { path: { ladder, day } } })),
    meta: { from: [...standing], of: [ladder] },
  });
