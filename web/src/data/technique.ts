import { queryOptions, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { standing } from "./facts";
import { useSend } from "./queryClient";

export const techniqueQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "technique"],
    queryFn: () => body(client.GET("/ladders/{ladder}/technique", { params: { path: { ladder } } })),
    meta: { from: standing, of: [ladder] },
  });

export const useTechnique = (ladder: string) => useQuery(techniqueQuery(ladder));

export const atlasQuery = (instrument: string, kind?: string) =>
  queryOptions({
    queryKey: ["atlas", instrument, kind],
    queryFn: () => body(client.GET("/technique/atlas", { params: { query: { instrument, kind } } })),
    meta: { from: standing },
    placeholderData: (before: Schemas["Atlas"] | undefined) => before,
  });

export const useAtlas = (instrument: string, kind?: string) => useQuery(atlasQuery(instrument, kind));

export const exerciseQuery = (instrument: string, exercise?: string) =>
  queryOptions({
    queryKey: ["exercise", instrument, exercise],
    queryFn: () => body(client.GET("/exercise", { params: { query: { instrument, exercise } } })),
    meta: { from: ["words", "library"] },
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before: Schemas["Exercise"] | undefined) => before,
    retry: false,
  });

export const useExercise = (instrument: string, exercise?: string) =>
  useQuery(exerciseQuery(instrument, exercise));

export const scaleQuery = (key: string, kind: Schemas["ScaleKind"], octaves: number) =>
  queryOptions({
    queryKey: ["scale", key, kind, octaves],
    queryFn: () => body(client.GET("/scale", { params: { query: { key, kind, octaves } } })),
    meta: { from: ["words"] },
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before: Schemas["Scale"] | undefined) => before,
  });

export const tempiQuery = (from: number, to: number, weeks: number) =>
  queryOptions({
    queryKey: ["tempi", from, to, weeks],
    queryFn: () => body(client.GET("/tempi", { params: { query: { from, to, weeks } } })),
    meta: { from: [] },
    retry: false,
  });

export const useTempi = (from: number, to: number, weeks: number) => useQuery(tempiQuery(from, to, weeks));

/** A cycle to try: which keys, in which pass, from when. */
export interface CycleTry {
  type: string;
  step: string;
  kind: string;
  key: string;
  order: "fifths" | "semitones";
  from: string;
  /** Keys are begun in the lesson before a break, too. */
  before: boolean;
}

export const cycleQuery = (ladder: string, c: CycleTry) =>
  queryOptions({
    queryKey: ["ladder", ladder, "cycle", c],
    queryFn: () => body(client.GET("/ladders/{ladder}/cycle", { params: { path: { ladder }, query: c } })),
    meta: { from: standing, of: [ladder] },
    placeholderData: (before: Schemas["Cycle"] | undefined) => before,
    retry: false,
  });

export const useCycle = (ladder: string, c: CycleTry) => useQuery(cycleQuery(ladder, c));

/** Makes a piece of the library of an exercise, and puts it on a ladder. */
export const useTakeExercise = (ladder: string, then?: (material: string, begin: boolean) => void) =>
  useSend(
    (x: { exercise: string; begin: boolean }) =>
      body(
        client.POST("/ladders/{ladder}/exercises", {
          params: { path: { ladder } },
          body: { exercise: x.exercise },
        }),
      ),
    [{ fact: "ladder", of: ladder }, { fact: "library" }],
    (taken, x) => then?.(taken.material, x.begin),
  );

export const exerciseTypesQuery = queryOptions({
  queryKey: ["exercise types"],
  queryFn: () => body(client.GET("/exercise-types")),
  meta: { from: ["library"] },
});

/** Changes goals and faults of a type of exercises. */
export const useSetExerciseType = () =>
  useSend(
    (a: { id: string; as: Schemas["NewExerciseForm"] }) =>
      body(client.PUT("/exercise-types/{type}", { params: { path: { type: a.id } }, body: a.as })),
    [{ fact: "library" }],
  );

/** A type says again what the program says. */
export const useResetExerciseType = () =>
  useSend(
    (id: string) => body(client.DELETE("/exercise-types/{type}", { params: { path: { type: id } } })),
    [{ fact: "library" }],
  );
