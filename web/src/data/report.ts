import { queryOptions, useMutation } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { type Change, standing } from "./facts";
import { useSend } from "./queryClient";

export const reportQuery = (ladder: string, report: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "report", report],
    queryFn: () =>
      body(client.GET("/ladders/{ladder}/reports/{report}", { params: { path: { ladder, report } } })),
    meta: { from: [...standing, "week", "report"], of: [ladder] },
    retry: false,
  });

export const reportsQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "reports"],
    queryFn: () => body(client.GET("/ladders/{ladder}/reports", { params: { path: { ladder } } })),
    meta: { from: ["report"], of: [ladder] },
  });

/** Who has a report for this term. */
export const queueQuery = queryOptions({
  queryKey: ["reports"],
  queryFn: () => body(client.GET("/reports")),
  meta: { from: ["report", "people", "calendar"] },
});

const changes = (ladder: string): Change[] => [{ fact: "report", of: ladder }];

/** Keeps what the teacher chose and wrote; the report as it reads then comes back. */
export const useWriteReport = (ladder: string, report: string) =>
  useMutation({
    mutationFn: (written: Schemas["WrittenReport"]) =>
      body(
        client.PUT("/ladders/{ladder}/reports/{report}", {
          params: { path: { ladder, report } },
          body: written,
        }),
      ),
    meta: { changes: changes(ladder), answers: reportQuery(ladder, report).queryKey },
  });

/** Shows the report to the family, as it is on the screen. */
export const usePublishReport = (ladder: string, report: string) =>
  useMutation({
    mutationFn: (r: Schemas["Report"]) =>
      body(
        client.POST("/ladders/{ladder}/reports/{report}/publish", {
          params: { path: { ladder, report } },
          body: { version: r.written.version, lines: r.lines },
        }),
      ),
    meta: {
      changes: [...changes(ladder), { fact: "messages" }, { fact: "family" }],
      answers: reportQuery(ladder, report).queryKey,
    },
  });

export const useDropReport = (ladder: string, then: () => void) =>
  useSend(
    (report: string) =>
      body(client.DELETE("/ladders/{ladder}/reports/{report}", { params: { path: { ladder, report } } })),
    changes(ladder),
    then,
  );
