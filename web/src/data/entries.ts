import { useMutation, useQueryClient } from "@tanstack/react-query";
import { ulid } from "ulid";
import { body, client, type Schemas } from "../contract/client";
import { lessonQuery } from "./queries";

export type Entry = Schemas["Entry"];

/** An entry gets its id and time where it is written, so sending it twice counts once. */
export function entry(kind: Entry["kind"], fields: Omit<Partial<Entry>, "id" | "at" | "kind"> = {}): Entry {
  return { id: ulid(), at: new Date().toISOString(), kind, ...fields };
}

/** A lesson with marks put in before the server has answered, so that a tap shows at once. */
export function withMarks(lesson: Schemas["Lesson"], entries: Entry[]): Schemas["Lesson"] {
  const marks = new Map(
    entries.filter((e) => e.kind === "mark").map((e) => [`${e.material} ${e.focus}`, e.mark]),
  );
  if (marks.size === 0) return lesson;
  return {
    ...lesson,
    pieces: lesson.pieces.map((piece) => ({
      ...piece,
      points: piece.points.map((p) => ({ ...p, mark: marks.get(`${piece.material} ${p.id}`) ?? p.mark })),
    })),
  };
}

/** Appends entries to a ladder's log and refreshes what depends on it. */
export function useAppend(ladder: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (entries: Entry[]) =>
      body(client.POST("/ladders/{ladder}/entries", { params: { path: { ladder } }, body: { entries } })),
    onMutate: async (entries) => {
      const key = lessonQuery(ladder).queryKey;
      await queries.cancelQueries({ queryKey: key });
      queries.setQueryData(key, (lesson) => lesson && withMarks(lesson, entries));
    },
    onSettled: () =>
      Promise.all([
        queries.invalidateQueries({ queryKey: ["ladder", ladder] }),
        queries.invalidateQueries({ queryKey: ["today"] }),
        queries.invalidateQueries({ queryKey: ["piece"] }),
      ]),
  });
}
