import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client } from "../contract/client";

function useRungs(ladder: string, change: () => Promise<unknown>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ["ladder", ladder] }),
        queries.invalidateQueries({ queryKey: ["piece"] }),
      ]),
  });
}

/** Puts a material at the end of its strand. */
export const usePlace = (ladder: string, material: string) =>
  useRungs(ladder, () =>
    client.PUT("/ladders/{ladder}/rungs/{material}", { params: { path: { ladder, material } } }),
  );

/** Takes a material that was not begun off the ladder. */
export const useRemove = (ladder: string, material: string) =>
  useRungs(ladder, () =>
    client.DELETE("/ladders/{ladder}/rungs/{material}", { params: { path: { ladder, material } } }),
  );
