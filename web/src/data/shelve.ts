import { queryOptions, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import type { Change } from "./facts";
import { useSend } from "./queryClient";

/** What changes when a piece is split, merged or removed: it is on ladders, and entries name it. */
const everywhere: Change[] = [{ fact: "library" }, { fact: "ladder" }, { fact: "log" }, { fact: "piece" }];

export const sectionsQuery = (material: string) =>
  queryOptions({
    queryKey: ["piece", material, "sections"],
    queryFn: () => body(client.GET("/materials/{material}/sections", { params: { path: { material } } })),
    meta: { from: ["library", "piece"] },
  });

export const useSections = (material: string, enabled: boolean) =>
  useQuery({ ...sectionsQuery(material), enabled });

export const useSplit = (material: string, then?: () => void) =>
  useSend(
    (sections: Schemas["NewSection"][]) =>
      body(
        client.PUT("/materials/{material}/sections", {
          params: { path: { material } },
          body: { sections },
        }),
      ),
    everywhere,
    then,
  );

export const useJoin = (material: string) =>
  useSend(
    () => body(client.DELETE("/materials/{material}/sections", { params: { path: { material } } })),
    everywhere,
  );

/** A copy of a piece that is one's own. */
export const useCopyMaterial = (material: string, then: (m: Schemas["MaterialBrief"]) => void) =>
  useSend(
    (id: string) =>
      body(client.POST("/materials/{material}/copy", { params: { path: { material } }, body: { id } })),
    everywhere,
    then,
  );

/** Removes a piece, or retires one that somebody has; or offers it again. */
export const useRemoveMaterial = (material: string, then?: (r: Schemas["Removed"]) => void) =>
  useSend(
    (restore: boolean) =>
      body(
        client.DELETE("/materials/{material}", {
          params: { path: { material }, query: restore ? { restore } : {} },
        }),
      ),
    everywhere,
    then,
  );

export const useMerge = (material: string, then?: () => void) =>
  useSend(
    (into: string) =>
      body(client.POST("/materials/{material}/merge", { params: { path: { material } }, body: { into } })),
    everywhere,
    then,
  );

export const usePlaceOnLadders = (material: string, then?: () => void) =>
  useSend(
    (ladders: string[]) =>
      body(
        client.POST("/materials/{material}/ladders", { params: { path: { material } }, body: { ladders } }),
      ),
    [{ fact: "ladder" }],
    then,
  );

export const useRenameBook = (source: string, then?: () => void) =>
  useSend(
    (title: string) =>
      body(client.PATCH("/library/books/{source}", { params: { path: { source } }, body: { title } })),
    [{ fact: "library" }],
    then,
  );

export const useRemoveBook = (source: string) =>
  useSend(
    (restore: boolean) =>
      body(
        client.DELETE("/library/books/{source}", {
          params: { path: { source }, query: restore ? { restore } : {} },
        }),
      ),
    everywhere,
  );

export const useSetSkill = (then?: () => void) =>
  useSend(
    (x: { skill: string; name: string; steps: string[]; needs: string[]; ahead: number; family?: string }) =>
      body(
        client.PUT("/skills/{skill}", {
          params: { path: { skill: x.skill } },
          body: { name: x.name, steps: x.steps, needs: x.needs, ahead: x.ahead, family: x.family },
        }),
      ),
    [{ fact: "library" }],
    then,
  );

export const useResetSkill = (then?: () => void) =>
  useSend(
    (skill: string) => body(client.DELETE("/skills/{skill}", { params: { path: { skill } } })),
    [{ fact: "library" }],
    then,
  );

export const useRequirements = (source: string) =>
  useQuery({
    queryKey: ["requirements", source],
    queryFn: () => body(client.GET("/library/books/{source}/requirements", { params: { path: { source } } })),
    meta: { from: ["library"] },
  });

/** Keeps the teacher's own list of what a book takes for granted. */
export const useSetRequirements = (source: string) =>
  useSend(
    (skills: string[]) =>
      body(
        client.PUT("/library/books/{source}/requirements", {
          params: { path: { source } },
          body: { skills },
        }),
      ),
    [{ fact: "library" }],
  );

export const useResetRequirements = (source: string) =>
  useSend(
    () => body(client.DELETE("/library/books/{source}/requirements", { params: { path: { source } } })),
    [{ fact: "library" }],
  );
