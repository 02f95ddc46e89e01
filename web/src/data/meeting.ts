import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { standing } from "./facts";
import { kept } from "./kept";
import type { Entry } from "./outbox";
import { useSend } from "./queryClient";

/** An entry of a book that the teacher moved. */
export interface Moved {
  book: string;
  entry: string;
}

export const meetingQuery = (ladder: string, minutes: number, moved?: Moved) =>
  queryOptions({
    queryKey: ["ladder", ladder, "meeting", minutes, moved],
    queryFn: () =>
      kept(`meeting ${ladder} ${minutes} ${moved?.entry ?? ""}`, () =>
        body(
          client.GET("/ladders/{ladder}/meeting", {
            params: { path: { ladder }, query: { minutes, ...moved } },
          }),
        ),
      ),
    meta: { from: standing, of: [ladder], kept: `meeting ${ladder} ${minutes} ${moved?.entry ?? ""}` },
    placeholderData: keepPreviousData,
  });

export const meetingActivitiesQuery = queryOptions({
  queryKey: ["meeting-activities"],
  queryFn: () => body(client.GET("/meeting-activities")),
  meta: { from: ["library", "words"] },
});

/** Changes an activity of first meetings, or adds one. */
export const useSetMeetingActivity = () =>
  useSend(
    (a: { id: string; as: Schemas["NewMeetingActivity"] }) =>
      body(
        client.PUT("/meeting-activities/{activity}", { params: { path: { activity: a.id } }, body: a.as }),
      ),
    [{ fact: "library" }],
  );

/** The program's own comes back; one of the studio's goes. */
export const useResetMeetingActivity = () =>
  useSend(
    (id: string) =>
      body(client.DELETE("/meeting-activities/{activity}", { params: { path: { activity: id } } })),
    [{ fact: "library" }],
  );

/** Keeps what is believed and puts a way into a book onto the ladder. */
export const useAccept = (ladder: string, then: (done: Schemas["KnownEffect"]) => void) =>
  useSend(
    (way: Schemas["AcceptPlacement"]) =>
      body(client.POST("/ladders/{ladder}/meeting", { params: { path: { ladder } }, body: way })),
    [{ fact: "log", of: ladder }, { fact: "ladder", of: ladder }, { fact: "library" }],
    then,
  );

/** How an activity stands after what waits on this device: the level of the next try, and what came. */
export function activityNow(a: Schemas["MeetingActivity"], waiting: Entry[]) {
  let level = a.level;
  let last = a.last;
  const came = [...a.came];
  const taken = new Set(waiting.map((e) => e.corrects));
  for (const e of waiting) {
    if (taken.has(e.id)) continue;
    if (e.kind !== "meeting" || e.goal !== a.id) continue;
    const words = a.outcomes.find((o) => o.id === e.outcome)?.name ?? "";
    last = e.id;
    came.push(a.tries.length > 0 ? `${e.step ?? 1}: ${words}` : words);
    level = a.next.find((n) => n.level === (e.step ?? 1) && n.outcome === e.outcome)?.next ?? 0;
  }
  return { level, came, last: taken.has(last) ? "" : last };
}

/** The question that stands after the answers that wait on this device; undefined where only the server knows the next. */
export function questionNow(p: Schemas["Placement"], waiting: Entry[]) {
  let q: Schemas["PlacementQuestion"] | undefined = p.question;
  let answered = 0;
  const taken = new Set(waiting.map((e) => e.corrects));
  for (const e of waiting) {
    if (e.kind !== "probe" || !e.outcome || !q || e.skill !== q.skill || taken.has(e.id)) continue;
    answered++;
    q = q.following.find((t) => t.answer === e.outcome)?.question;
  }
  return { question: q, answered };
}
