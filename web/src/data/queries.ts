import { QueryClient, queryOptions } from "@tanstack/react-query";
import { body, client, Refusal, type Schemas } from "../contract/client";
import { askAgain, kept } from "./kept";

/** Tries again when the network failed, never when the server refused. */
export const again = (count: number, error: Error) => !(error instanceof Refusal) && count < 4;

export const queryClient = new QueryClient({
  defaultOptions: {
    // Without a connection a query answers with what is kept; it must not wait for one.
    queries: { retry: again, staleTime: 5_000, networkMode: "always" },
    mutations: { retry: again, networkMode: "always" },
  },
});

askAgain(() => void queryClient.invalidateQueries());

export const sessionQuery = queryOptions({
  queryKey: ["session"],
  queryFn: () => kept("session", () => body(client.GET("/session"))),
  staleTime: 60_000,
});

export const todayQuery = (day?: string) =>
  queryOptions({
    queryKey: ["today", day],
    queryFn: () =>
      kept(`today ${day ?? ""}`, () => body(client.GET("/today", { params: { query: { day } } }))),
  });

export const studentsQuery = queryOptions({
  queryKey: ["students"],
  queryFn: () => body(client.GET("/students")),
});

export const ladderQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "view"],
    queryFn: () => body(client.GET("/ladders/{ladder}", { params: { path: { ladder } } })),
  });

export const nextQuery = (ladder: string, strand: Schemas["Strand"]) =>
  queryOptions({
    queryKey: ["ladder", ladder, "next", strand],
    queryFn: () =>
      body(client.GET("/ladders/{ladder}/next", { params: { path: { ladder }, query: { strand } } })),
  });

export const lessonQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "lesson"],
    queryFn: () =>
      kept(`lesson ${ladder}`, () =>
        body(client.GET("/ladders/{ladder}/lesson", { params: { path: { ladder } } })),
      ),
  });

export const weekQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "week"],
    queryFn: () => body(client.GET("/ladders/{ladder}/week", { params: { path: { ladder } } })),
  });

export const materialsQuery = (instrument?: Schemas["Instrument"]) =>
  queryOptions({
    queryKey: ["materials", instrument],
    queryFn: () => body(client.GET("/materials", { params: { query: { instrument } } })),
  });

export const pieceQuery = (material: string, ladder?: string) =>
  queryOptions({
    queryKey: ["piece", material, ladder],
    queryFn: () =>
      body(client.GET("/materials/{material}", { params: { path: { material }, query: { ladder } } })),
  });

export const scoreQuery = (material: string) =>
  queryOptions({
    queryKey: ["score", material],
    queryFn: () =>
      body(
        client.GET("/materials/{material}/score", { params: { path: { material } }, parseAs: "arrayBuffer" }),
      ).then(decodeScore),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** Score files may be UTF-8 or, from some programs, UTF-16 with a byte order mark. */
export function decodeScore(data: ArrayBuffer): string {
  const [a, b] = new Uint8Array(data, 0, Math.min(2, data.byteLength));
  const label = a === 0xfe && b === 0xff ? "utf-16be" : a === 0xff && b === 0xfe ? "utf-16le" : "utf-8";
  return new TextDecoder(label).decode(data);
}

export const skillsQuery = queryOptions({
  queryKey: ["skills"],
  queryFn: () => body(client.GET("/skills")),
  staleTime: 60_000,
});

export const wordsQuery = queryOptions({
  queryKey: ["words"],
  queryFn: () => body(client.GET("/words")),
});

export const fitQuery = (ladder: string, strand?: Schemas["Strand"]) =>
  queryOptions({
    queryKey: ["ladder", ladder, "fit", strand],
    queryFn: () =>
      body(client.GET("/ladders/{ladder}/fit", { params: { path: { ladder }, query: { strand } } })),
  });

export const overviewQuery = queryOptions({
  queryKey: ["overview"],
  queryFn: () => body(client.GET("/overview")),
});

export const wayQuery = (ladder?: string) =>
  queryOptions({
    queryKey: ["way", ladder],
    queryFn: () => body(client.GET("/way", { params: { query: { ladder } } })),
  });

export const holidaysQuery = queryOptions({
  queryKey: ["holidays"],
  queryFn: () => body(client.GET("/holidays")),
});

export const libraryQuery = (instrument: Schemas["Instrument"]) =>
  queryOptions({
    queryKey: ["library", instrument],
    queryFn: () => body(client.GET("/library", { params: { query: { instrument } } })),
  });

export const bookQuery = (source: string, player: string) =>
  queryOptions({
    queryKey: ["library", "book", source, player],
    queryFn: () =>
      body(client.GET("/library/books/{source}", { params: { path: { source }, query: { for: player } } })),
  });

export const besideQuery = (source: string, other: string, player: string) =>
  queryOptions({
    queryKey: ["library", "beside", source, other, player],
    queryFn: () =>
      body(
        client.GET("/library/books/{source}/beside/{other}", {
          params: { path: { source, other }, query: { for: player } },
        }),
      ),
  });

export const planQuery = (ladder: string, day?: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "plan", day],
    queryFn: () =>
      kept(`plan ${ladder} ${day ?? ""}`, () =>
        body(client.GET("/ladders/{ladder}/plan", { params: { path: { ladder }, query: { day } } })),
      ),
  });

export const setupQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "setup"],
    queryFn: () => body(client.GET("/ladders/{ladder}/setup", { params: { path: { ladder } } })),
  });

export const messagesQuery = queryOptions({
  queryKey: ["messages"],
  queryFn: () => body(client.GET("/messages")),
});

export const balanceQuery = queryOptions({
  queryKey: ["balance"],
  queryFn: () => body(client.GET("/balance")),
});

export const familyQuery = (token: string) =>
  queryOptions({
    queryKey: ["family", token],
    queryFn: () =>
      kept(`family ${token}`, () => body(client.GET("/family/{token}", { params: { path: { token } } }))),
  });

export const scaleQuery = (key: string, kind: Schemas["ScaleKind"], octaves: number) =>
  queryOptions({
    queryKey: ["scale", key, kind, octaves],
    queryFn: () => body(client.GET("/scale", { params: { query: { key, kind, octaves } } })),
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before: Schemas["Scale"] | undefined) => before,
  });

export const tempiQuery = (from: number, to: number, weeks: number) =>
  queryOptions({
    queryKey: ["tempi", from, to, weeks],
    queryFn: () => body(client.GET("/tempi", { params: { query: { from, to, weeks } } })),
    retry: false,
  });

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
    placeholderData: (before: Schemas["Cycle"] | undefined) => before,
    retry: false,
  });

export const instrumentsQuery = queryOptions({
  queryKey: ["instruments"],
  queryFn: () => body(client.GET("/instruments")),
  staleTime: Number.POSITIVE_INFINITY,
});

export const exerciseQuery = (instrument: string, exercise?: string) =>
  queryOptions({
    queryKey: ["exercise", instrument, exercise],
    queryFn: () => body(client.GET("/exercise", { params: { query: { instrument, exercise } } })),
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before: Schemas["Exercise"] | undefined) => before,
    retry: false,
  });

export const techniqueQuery = (ladder: string) =>
  queryOptions({
    queryKey: ["ladder", ladder, "technique"],
    queryFn: () => body(client.GET("/ladders/{ladder}/technique", { params: { path: { ladder } } })),
  });

export const atlasQuery = (instrument: string, kind?: string) =>
  queryOptions({
    queryKey: ["atlas", instrument, kind],
    queryFn: () => body(client.GET("/technique/atlas", { params: { query: { instrument, kind } } })),
    placeholderData: (before: Schemas["Atlas"] | undefined) => before,
  });
