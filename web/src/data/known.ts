import { queryOptions, useQuery } from "@tanstack/react-query";
import { ulid } from "ulid";
import { body, client, type Schemas } from "../contract/client";
import { type Change, standing } from "./facts";
import { useSend } from "./queryClient";

/** What entering things that were known before changes: the log, the ladder, and perhaps the library. */
const entered = (ladder: string): Change[] => [
  { fact: "log", of: ladder },
  { fact: "ladder", of: ladder },
  { fact: "library" },
];

export const knownQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "known"],
    queryFn: () => body(client.GET("/ladders/{ladder}/known", { params: { path: { ladder } } })),
    meta: { from: standing, of: [ladder] },
  });

/** Finds what the lines of a list mean. */
export const useMatchTitles = (ladder: string) =>
  useSend(
    (text: string) =>
      body(client.POST("/ladders/{ladder}/known/match", { params: { path: { ladder } }, body: { text } })),
    [],
  );

const post = (ladder: string, known: Schemas["NewKnown"], only: boolean) =>
  body(
    client.POST("/ladders/{ladder}/known", {
      params: { path: { ladder }, query: only ? { try: true } : {} },
      body: known,
    }),
  );

/** What entering it would change; it is asked, not kept. */
export const effectQuery = (ladder: string, known: Schemas["NewKnown"]) =>
  queryOptions({
    queryKey: ["ladder", ladder, "known effect", { ...known, batch: "" }],
    queryFn: () => post(ladder, known, true),
    meta: { from: standing, of: [ladder] },
    placeholderData: (before: Schemas["KnownEffect"] | undefined) => before,
  });

export const useEffectOf = (ladder: string, known: Schemas["NewKnown"], enabled: boolean) =>
  useQuery({ ...effectQuery(ladder, known), enabled });

export const useEnterKnown = (ladder: string, then?: () => void) =>
  useSend((known: Schemas["NewKnown"]) => post(ladder, known, false), entered(ladder), then);

export const useUndoBatch = (ladder: string) =>
  useSend(
    (batch: string) =>
      body(client.DELETE("/ladders/{ladder}/batches/{batch}", { params: { path: { ladder, batch } } })),
    entered(ladder),
  );

export const findQuery = (ladder: string, q: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "find", q],
    queryFn: () => body(client.GET("/ladders/{ladder}/find", { params: { path: { ladder }, query: { q } } })),
    meta: { from: standing, of: [ladder] },
    placeholderData: (before: Schemas["FoundForLadder"][] | undefined) => before,
  });

export const useFind = (ladder: string, q: string) => useQuery(findQuery(ladder, q));

/** Puts what was found, or a piece by its title alone, onto the ladder. */
export const usePutOn = (ladder: string, then?: (title: string) => void) =>
  useSend(
    async (x: Pick<Schemas["FoundForLadder"], "kind" | "id" | "title"> | NewTitle) => {
      const path = { ladder };
      if ("strand" in x) {
        const m = await body(client.POST("/materials", { body: { id: ulid(), ...x } }));
        await client.PUT("/ladders/{ladder}/rungs/{material}", {
          params: { path: { ...path, material: m.id } },
        });
      } else if (x.kind === "book")
        await client.PUT("/ladders/{ladder}/books/{source}", { params: { path: { ...path, source: x.id } } });
      else if (x.kind === "exercise")
        await client.POST("/ladders/{ladder}/exercises", { params: { path }, body: { exercise: x.id } });
      else
        await client.PUT("/ladders/{ladder}/rungs/{material}", {
          params: { path: { ...path, material: x.id } },
        });
      return x.title;
    },
    [{ fact: "ladder", of: ladder }, { fact: "library" }],
    then,
  );

/** A piece of which only the title is known. */
export interface NewTitle {
  title: string;
  strand: Schemas["Strand"];
  instrument: string;
}

export const treatsQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "treats"],
    queryFn: () => body(client.GET("/ladders/{ladder}/treats", { params: { path: { ladder } } })),
    meta: { from: ["log", "family", "way"], of: [ladder] },
  });

export const useTreats = (ladder: string) => useQuery(treatsQuery(ladder));

export const useSetTreat = (ladder: string, then?: () => void) =>
  useSend(
    ({ id, ...treat }: Schemas["NewTreat"] & { id: string }) =>
      body(
        client.PUT("/ladders/{ladder}/treats/{treat}", {
          params: { path: { ladder, treat: id } },
          body: treat,
        }),
      ),
    [{ fact: "family", of: ladder }],
    then,
  );

export const useRemoveTreat = (ladder: string) =>
  useSend(
    (treat: string) =>
      body(client.DELETE("/ladders/{ladder}/treats/{treat}", { params: { path: { ladder, treat } } })),
    [{ fact: "family", of: ladder }],
  );
