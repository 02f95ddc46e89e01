import { QueryObserver } from "@tanstack/react-query";
import { describe, expect, it } from "vitest";
import { Refusal } from "../contract/client";
import { agendaQuery, freeQuery } from "./dates";
import { logged } from "./entries";
import { type Change, standing, touched } from "./facts";
import { familyQuery, weekQuery } from "./home";
import { arranged, fitQuery, ladderQuery, nextQuery } from "./ladder";
import {
  balanceQuery,
  lessonQuery,
  overviewQuery,
  planQuery,
  seatQuery,
  setupQuery,
  todayQuery,
} from "./lesson";
import {
  besideQuery,
  bookQuery,
  libraryQuery,
  materialsQuery,
  pieceQuery,
  scoreQuery,
  skillsQuery,
} from "./library";
import {
  holidaysQuery,
  instrumentsQuery,
  messagesQuery,
  sessionQuery,
  studentQuery,
  studentsQuery,
  wayQuery,
  wordsQuery,
} from "./people";
import { newQueryClient } from "./queryClient";
import { atlasQuery, exerciseQuery, scaleQuery, techniqueQuery, tempiQuery } from "./technique";

const all = {
  account: sessionQuery,
  agenda: agendaQuery("2026-05-04", 7),
  atlas: atlasQuery("piano"),
  balance: balanceQuery,
  beside: besideQuery("a", "b", "ada"),
  book: bookQuery("a", "ada"),
  exercise: exerciseQuery("piano"),
  family: familyQuery("token"),
  fit: fitQuery("ada"),
  free: freeQuery("ada", "2026-05-04"),
  holidays: holidaysQuery,
  instruments: instrumentsQuery,
  ladder: ladderQuery("ada"),
  ladderOfBen: ladderQuery("ben"),
  lesson: lessonQuery("ada"),
  library: libraryQuery("piano"),
  materials: materialsQuery("piano"),
  messages: messagesQuery,
  next: nextQuery("ada", "method"),
  overview: overviewQuery,
  piece: pieceQuery("gulls", "ada"),
  pieceForBen: pieceQuery("gulls", "ben"),
  plan: planQuery("ada"),
  scale: scaleQuery("C", "major", 1),
  score: scoreQuery("gulls"),
  seat: seatQuery("ada", {} as never),
  setup: setupQuery("ada"),
  skills: skillsQuery,
  student: studentQuery("ada"),
  students: studentsQuery,
  technique: techniqueQuery("ada"),
  tempi: tempiQuery(60, 96, 5),
  today: todayQuery(),
  way: wayQuery(),
  week: weekQuery("ada"),
  weekOfBen: weekQuery("ben"),
  words: wordsQuery,
};

const anew = (...changes: Change[]) =>
  Object.entries(all)
    .filter(([, q]) => touched(q.meta, changes))
    .map(([name]) => name)
    .join(" ");

describe("what is asked anew", () => {
  it("after an entry in the lesson: all of that student, nobody else's pages", () => {
    expect(anew(...logged("ada"))).toBe(
      "atlas balance beside book fit ladder lesson library next overview piece plan setup student technique today week",
    );
  });
  it("after the ladder was arranged", () => {
    expect(anew(...arranged("ben"))).toBe(
      "atlas balance beside book ladderOfBen library overview pieceForBen today weekOfBen",
    );
  });
  it("after a holiday: whatever counts lessons", () => {
    expect(anew({ fact: "calendar" })).toBe(
      "agenda atlas balance beside book family fit free holidays ladder ladderOfBen lesson library next overview piece pieceForBen plan student students technique today week weekOfBen",
    );
  });
  it("after a correction of a piece its score too, and no other", () => {
    expect(anew({ fact: "piece", of: "gulls" }).split(" ")).toContain("score");
    expect(anew({ fact: "piece", of: "terns" }).split(" ")).not.toContain("score");
  });
  it("after the words changed: everything that names a note, no score", () => {
    expect(anew({ fact: "words" }).split(" ")).toEqual(
      expect.arrayContaining(["exercise", "scale", "words", "lesson"]),
    );
    expect(anew({ fact: "words" }).split(" ")).not.toContain("score");
  });
  it("after a message was sent again: the messages", () => {
    expect(anew({ fact: "messages" })).toBe("messages");
  });
  it("every question says what it is made of", () => {
    for (const [name, q] of Object.entries(all)) expect(q.meta?.from, name).toBeDefined();
    expect(standing).toContain("log");
  });
});

describe("sending", () => {
  const setUp = () => {
    const client = newQueryClient();
    client.setQueryData(["shown"], { plan: "old" });
    const asked = { n: 0 };
    const stop = new QueryObserver(client, {
      queryKey: ["shown"],
      queryFn: () => ({ plan: `asked ${++asked.n}` }),
      meta: { from: ["week"] },
      staleTime: Number.POSITIVE_INFINITY,
    }).subscribe(() => {});
    const send = (fn: () => Promise<unknown>, meta: object) =>
      client
        .getMutationCache()
        .build(client, {
          mutationFn: fn,
          retry: false,
          meta: { changes: [{ fact: "week" }], ...meta } as never,
        })
        .execute(undefined);
    return { client, asked, send, stop };
  };
  it("asks anew what it touched", async () => {
    const { client, asked, send, stop } = setUp();
    await send(async () => ({}), {});
    expect(asked.n).toBe(1);
    expect(client.getQueryData(["shown"])).toEqual({ plan: "asked 1" });
    stop();
  });
  it("takes the answer that came with it, and asks no second time", async () => {
    const { client, asked, send, stop } = setUp();
    await send(async () => ({ plan: "new" }), { answers: ["shown"] });
    expect(asked.n).toBe(0);
    expect(client.getQueryData(["shown"])).toEqual({ plan: "new" });
    stop();
  });
  it("shows after a refusal how things are now, unless the user is to choose", async () => {
    const { asked, send, stop } = setUp();
    const refuse = async () => {
      throw new Refusal(409, "It changed.");
    };
    await expect(send(refuse, { stays: () => true })).rejects.toThrow("It changed.");
    expect(asked.n).toBe(0);
    await expect(send(refuse, {})).rejects.toThrow("It changed.");
    expect(asked.n).toBe(1);
    stop();
  });
});
