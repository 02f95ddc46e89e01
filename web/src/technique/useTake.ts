import { entry } from "../data/entries";
import { useTakeExercise } from "../data/technique";
import type { Append } from "../data/useLessonAppend";

/** Puts an exercise on the ladder, and begins it unless it is only to stand there ahead. */
export const useTake = (ladder: string, append: Append | undefined) =>
  useTakeExercise(ladder, (material, begin) => {
    if (begin) append?.mutate([entry("assigned", { material })]);
  });
