import { useMutation, useQueryClient } from "@tanstack/react-query";
import { body, client } from "../contract/client";
import { entry } from "../data/entries";
import type { Append } from "../lesson/useLessonAppend";

/** Puts an exercise on the ladder, and begins it unless it is only to stand there ahead. */
export function useTake(ladder: string, append: Append | undefined) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (x: { exercise: string; begin: boolean }) => {
      const taken = await body(
        client.POST("/ladders/{ladder}/exercises", {
          params: { path: { ladder } },
          body: { exercise: x.exercise },
        }),
      );
      if (x.begin) append?.mutate([entry("assigned", { material: taken.material })]);
      return taken;
    },
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ["ladder", ladder] }),
        queries.invalidateQueries({ queryKey: ["materials"] }),
        queries.invalidateQueries({ queryKey: ["atlas"] }),
      ]),
  });
}
