import { queryOptions } from "@tanstack/react-query";
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
