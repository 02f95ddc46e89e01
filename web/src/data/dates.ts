import { queryOptions, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { useSend } from "./queryClient";

export const agendaQuery = (from: string | undefined, days: number) =>
  queryOptions({
    queryKey: ["agenda", from, days],
    queryFn: () => body(client.GET("/calendar", { params: { query: { from, days } } })),
    meta: { from: ["calendar", "people"] },
    placeholderData: (before: Schemas["Agenda"] | undefined) => before,
  });

export const freeQuery = (ladder: string, near: string, minutes?: number) =>
  queryOptions({
    queryKey: ["free", ladder, near, minutes],
    queryFn: () =>
      body(client.GET("/ladders/{ladder}/free", { params: { path: { ladder }, query: { near, minutes } } })),
    meta: { from: ["calendar", "people"] },
  });

export const useFree = (ladder: string, near: string, minutes?: number, enabled = true) =>
  useQuery({ ...freeQuery(ladder, near, minutes), enabled: enabled && ladder !== "" && near !== "" });

/** Moves, cancels, restores or adds one lesson; every page that knows when lessons are asks again. */
export const useChangeLesson = (then?: () => void) =>
  useSend(
    (x: { ladder: string; lesson: string; change: Schemas["LessonChange"] }) =>
      body(
        client.PUT("/ladders/{ladder}/lessons/{lesson}", {
          params: { path: { ladder: x.ladder, lesson: x.lesson } },
          body: x.change,
        }),
      ),
    [{ fact: "calendar" }],
    then,
  );

export const useSetSlots = (then?: () => void) =>
  useSend(
    (x: { ladder: string; from: string; slots: Schemas["NewSlot"][] }) =>
      body(
        client.PUT("/ladders/{ladder}/slots", {
          params: { path: { ladder: x.ladder } },
          body: { from: x.from, slots: x.slots },
        }),
      ),
    [{ fact: "calendar" }, { fact: "people" }],
    then,
  );

export const feedQuery = queryOptions({
  queryKey: ["feed link"],
  queryFn: () => body(client.GET("/calendar/link")),
  meta: { from: ["account"] },
});

export const useFeedLink = () => useQuery(feedQuery);

export const useMakeFeedLink = () =>
  useSend(() => body(client.POST("/calendar/link")), [{ fact: "account" }]);

export const useRevokeFeedLink = () =>
  useSend(() => body(client.DELETE("/calendar/link")), [{ fact: "account" }]);

/** Takes holidays out of a calendar file; with `keep` false it only shows them. */
export const useImportHolidays = () =>
  useSend(
    ({ text, keep }: { text: string; keep: boolean }) =>
      body(
        client.POST("/holidays/import", {
          params: { query: { try: !keep } },
          body: text as never,
          bodySerializer: (b: unknown) => b as string,
          headers: { "Content-Type": "text/calendar" },
        }),
      ),
    ({ keep }) => (keep ? [{ fact: "calendar" }] : []),
  );
