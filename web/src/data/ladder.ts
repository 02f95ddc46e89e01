import { queryOptions, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { type Order, orderOf } from "../ladder/order";
import { type Change, standing } from "./facts";
import { useSend } from "./queryClient";

/** What a ladder that is arranged anew changes. */
export const arranged = (ladder?: string): Change[] => [{ fact: "ladder", of: ladder }];

export const ladderQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "view"],
    queryFn: () => body(client.GET("/ladders/{ladder}", { params: { path: { ladder } } })),
    meta: { from: [...standing, "week"], of: [ladder] },
  });

export const nextQuery = (ladder: string, strand: Schemas["Strand"]) =>
  queryOptions({
    queryKey: ["ladder", ladder, "next", strand],
    queryFn: () =>
      body(client.GET("/ladders/{ladder}/next", { params: { path: { ladder }, query: { strand } } })),
    meta: { from: standing, of: [ladder] },
  });

export const useNext = (ladder: string, strand: Schemas["Strand"]) => useQuery(nextQuery(ladder, strand));

export const fitQuery = (ladder: string, strand?: Schemas["Strand"]) =>
  queryOptions({
    queryKey: ["ladder", ladder, "fit", strand],
    queryFn: () =>
      body(client.GET("/ladders/{ladder}/fit", { params: { path: { ladder }, query: { strand } } })),
    meta: { from: standing, of: [ladder] },
  });

export const useFits = (ladder: string, strand?: Schemas["Strand"]) => useQuery(fitQuery(ladder, strand));

/** Puts a material at the end of its strand. */
export const usePlace = (ladder: string, material: string) =>
  useSend(
    () => client.PUT("/ladders/{ladder}/rungs/{material}", { params: { path: { ladder, material } } }),
    arranged(ladder),
  );

/** Takes a material that was not begun off the ladder. */
export const useRemove = (ladder: string) =>
  useSend(
    (material: string) =>
      body(client.DELETE("/ladders/{ladder}/rungs/{material}", { params: { path: { ladder, material } } })),
    arranged(ladder),
  );

/** Saves an order of the rungs, or only asks what it would do. */
export const sendOrder = (ladder: string, version: number, rungs: Order, only: boolean) =>
  body(
    client.PUT("/ladders/{ladder}/rungs", {
      params: { path: { ladder }, query: only ? { try: true } : {} },
      body: { version, rungs },
    }),
  );

/** Puts the pieces of a path first on a ladder, those left out that were begun. */
export const usePutFirst = (stops: Order) =>
  useSend(async (ladder: string) => {
    const view = await body(client.GET("/ladders/{ladder}", { params: { path: { ladder } } }));
    const begun = new Set(
      view.rails.flatMap((r) =>
        r.rungs.filter((x) => x.layer === "working" || x.layer === "review").map((x) => x.material),
      ),
    );
    const first = stops.filter((s) => !begun.has(s.material));
    const placed = new Set(first.map((r) => r.material));
    const rest = orderOf(view).filter((r) => !placed.has(r.material));
    return sendOrder(ladder, view.version, [...first, ...rest], false);
  }, arranged());

/** Asks whether a day can be met; nothing is kept. */
export const useAskTarget = (ladder: string) =>
  useSend(
    (q: { material: string; day: string; given: string[] }) =>
      body(client.POST("/ladders/{ladder}/targets", { params: { path: { ladder } }, body: q })),
    [],
  );

export const useKeepTarget = (ladder: string, then: () => void) =>
  useSend(
    // The id is made with the question: kept twice, it is one target.
    ({ id, ...t }: { id: string; material: string; day: string; name: string }) =>
      body(
        client.PUT("/ladders/{ladder}/targets/{target}", {
          params: { path: { ladder, target: id } },
          body: t,
        }),
      ),
    arranged(ladder),
    then,
  );

export const useRemoveTarget = (ladder: string, target: string) =>
  useSend(
    () => body(client.DELETE("/ladders/{ladder}/targets/{target}", { params: { path: { ladder, target } } })),
    arranged(ladder),
  );
