import { queryOptions, useMutation, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { standing } from "./facts";

export const repertoireQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "repertoire"],
    queryFn: () => body(client.GET("/ladders/{ladder}/repertoire", { params: { path: { ladder } } })),
    meta: { from: standing, of: [ladder] },
  });

export const useRepertoire = (ladder: string) => useQuery(repertoireQuery(ladder));

export const performersQuery = queryOptions({
  queryKey: ["performers"],
  queryFn: () => body(client.GET("/programme")),
  meta: { from: standing },
});

type New = Schemas["NewProgramme"];

/** The programme in order, with how long it lasts. */
export const useProgramme = (wanted: New) =>
  useQuery({
    queryKey: ["programme", wanted.keepOrder, wanted.pieces],
    queryFn: () => body(client.POST("/programme", { body: wanted })),
    meta: { from: standing },
    placeholderData: (before: Schemas["Programme"] | undefined) => before,
    retry: false,
  });

/** Saves the programme as a file on this device. */
export const usePrintProgramme = () =>
  useMutation({
    mutationFn: async ({ format, wanted }: { format: "pdf" | "csv"; wanted: New }) => {
      const file = (await body(
        client.POST("/programme/{format}", { params: { path: { format } }, body: wanted, parseAs: "blob" }),
      )) as unknown as Blob;
      const link = document.createElement("a");
      link.href = URL.createObjectURL(file);
      link.download = `programme.${format}`;
      link.click();
      URL.revokeObjectURL(link.href);
    },
    meta: { changes: [] },
  });
