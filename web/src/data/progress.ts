import { queryOptions, useMutation, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { standing } from "./facts";

export type Span = { from?: string; to?: string };

export const progressQuery = (ladder: string, span: Span) =>
  queryOptions({
    queryKey: ["ladder", ladder, "progress", span.from, span.to],
    queryFn: () =>
      body(client.GET("/ladders/{ladder}/progress", { params: { path: { ladder }, query: span } })),
    meta: { from: [...standing, "week"], of: [ladder] },
    placeholderData: (before: Schemas["Progress"] | undefined) => before,
    retry: false,
  });

/** The whole studio looked back at. */
export const yearQuery = queryOptions({
  queryKey: ["studio year"],
  queryFn: () => body(client.GET("/studio-year")),
  meta: { from: [...standing, "week"] },
});

/** What the studio has learned from its lessons. */
export const learnedQuery = queryOptions({
  queryKey: ["learned"],
  queryFn: () => body(client.GET("/learned")),
  meta: { from: standing },
});

export const useLearned = () => useQuery(learnedQuery);

/** Uses what was learned, or leaves it off: leaps and dates of all follow from it. */
export const useUseLearned = () =>
  useMutation({
    mutationFn: (use: boolean) => body(client.PUT("/learned", { body: { use } })),
    meta: { changes: [{ fact: "library" }, { fact: "piece" }], answers: learnedQuery.queryKey },
  });
