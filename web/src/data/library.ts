import { keepPreviousData, queryOptions, useQuery } from "@tanstack/react-query";
import { body, client, type Schemas } from "../contract/client";
import { standing } from "./facts";
import { base64, checked } from "./files";
import { useSend } from "./queryClient";

type Instrument = Schemas["Instrument"];

export const materialsQuery = (instrument?: Instrument) =>
  queryOptions({
    queryKey: ["materials", instrument],
    queryFn: () => body(client.GET("/materials", { params: { query: { instrument } } })),
    meta: { from: ["library", "piece", "words"] },
  });

export const useMaterials = (instrument?: Instrument, enabled = true) =>
  useQuery({ ...materialsQuery(instrument), enabled });

export const libraryQuery = (instrument: Instrument) =>
  queryOptions({
    queryKey: ["library", instrument],
    queryFn: () => body(client.GET("/library", { params: { query: { instrument } } })),
    meta: { from: standing },
  });

export const bookQuery = (source: string, player: string) =>
  queryOptions({
    queryKey: ["library", "book", source, player],
    queryFn: () =>
      body(client.GET("/library/books/{source}", { params: { path: { source }, query: { for: player } } })),
    meta: { from: standing },
  });

export const useBook = (source: string, player: string) => useQuery(bookQuery(source, player));

export const besideQuery = (source: string, other: string, player: string) =>
  queryOptions({
    queryKey: ["library", "beside", source, other, player],
    queryFn: () =>
      body(
        client.GET("/library/books/{source}/beside/{other}", {
          params: { path: { source, other }, query: { for: player } },
        }),
      ),
    meta: { from: standing },
  });

export const useBeside = (source: string, other: string, player: string) =>
  useQuery(besideQuery(source, other, player));

export const skillsQuery = queryOptions({
  queryKey: ["skills"],
  queryFn: () => body(client.GET("/skills")),
  meta: { from: ["library", "words"] },
  staleTime: 60_000,
});

export const useSkills = (enabled = true) => useQuery({ ...skillsQuery, enabled });

export const pieceQuery = (material: string, ladder?: string) =>
  queryOptions({
    queryKey: ["piece", material, ladder],
    queryFn: () =>
      body(client.GET("/materials/{material}", { params: { path: { material }, query: { ladder } } })),
    meta: { from: standing, of: ladder ? [material, ladder] : [material] },
  });

export const scoreQuery = (material: string) =>
  queryOptions({
    queryKey: ["score", material],
    queryFn: () =>
      body(
        client.GET("/materials/{material}/score", { params: { path: { material } }, parseAs: "arrayBuffer" }),
      ).then(decodeScore),
    meta: { from: ["piece"], of: [material] },
    staleTime: Number.POSITIVE_INFINITY,
  });

export const useScore = (material: string) => useQuery(scoreQuery(material));

/** Score files may be UTF-8 or, from some programs, UTF-16 with a byte order mark. */
export function decodeScore(data: ArrayBuffer): string {
  const [a, b] = new Uint8Array(data, 0, Math.min(2, data.byteLength));
  const label = a === 0xfe && b === 0xff ? "utf-16be" : a === 0xff && b === 0xfe ? "utf-16le" : "utf-8";
  return new TextDecoder(label).decode(data);
}

/** A tune in ABC, read as it is typed; nothing is kept. */
export const typedQuery = (abc: string) =>
  queryOptions({
    queryKey: ["typed", abc],
    queryFn: () => body(client.POST("/scores/typed", { body: { abc } })),
    meta: { from: ["words"] },
    enabled: abc.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });

/** A file that was read and is not kept yet. */
export type Looked = Schemas["ScoreRead"] & { file: File; score: string };

/** What came of reading several files: those that were read, and why others were not. */
export type LookedAll = { read: Looked[]; refused: { name: string; why: Error }[] };

/** Reads what is in some files; one that cannot be read does not hold back the others. */
export const useReadScores = (instrument: Instrument, then: (all: LookedAll) => void) =>
  useSend(
    async (given: File[]): Promise<LookedAll> => {
      const all: LookedAll = { read: [], refused: [] };
      for (const one of given) {
        try {
          const file = checked(one);
          const score = await base64(file);
          const read = await body(
            client.POST("/scores/read", { body: { fileName: file.name, score, instrument } }),
          );
          all.read.push({ file, score, ...read });
        } catch (why) {
          all.refused.push({ name: one.name, why: why as Error });
        }
      }
      return all;
    },
    [],
    then,
  );

/** Adds pieces to the library, one after the other, and puts each on a ladder; the id of the first comes back. */
export const useAddPieces = (ladder: string, then: (first: string) => void) =>
  useSend(
    async (pieces: Schemas["NewMaterial"][]) => {
      let first = "";
      for (const piece of pieces) {
        const added = await body(client.POST("/materials", { body: piece }));
        await body(
          client.PUT("/ladders/{ladder}/rungs/{material}", {
            params: { path: { ladder, material: added.id } },
          }),
        );
        first ||= added.id;
      }
      return first;
    },
    [{ fact: "library" }, { fact: "ladder", of: ladder }],
    then,
  );

/** Changes what the library says of a piece. */
export const useDescribe = (material: string, then?: () => void) =>
  useSend(
    (d: Schemas["MaterialChange"]) =>
      body(client.PATCH("/materials/{material}", { params: { path: { material } }, body: d })),
    [{ fact: "piece", of: material }, { fact: "library" }],
    then,
  );

/** Brings another file of a piece. */
export const useBringScore = (material: string, instrument: Instrument) =>
  useSend(
    async (given: FormDataEntryValue | null) => {
      const file = checked(given);
      return body(
        client.PUT("/materials/{material}/score", {
          params: { path: { material } },
          body: { fileName: file.name, score: await base64(file), instrument },
        }),
      );
    },
    [{ fact: "piece" }],
  );

/** Sets a finding of a piece against its score, or takes such a setting back. */
export const useOverrule = (material: string) =>
  useSend(
    (o: Schemas["NewOverruling"]) =>
      body(client.PUT("/materials/{material}/overrulings", { params: { path: { material } }, body: o })),
    [{ fact: "piece" }],
  );

/** Reads a table before it comes in. */
export const useReadTable = (
  then: (read: { text: string; name: string; table: Schemas["TableRead"] }) => void,
) =>
  useSend(
    async (file: File) => {
      const text = await base64(file);
      const words = file.name.replace(/\.[a-z]+$/i, "").replace(/[-_]+/g, " ");
      const name = words.charAt(0).toUpperCase() + words.slice(1);
      const table = await body(client.POST("/library/table", { body: { table: text } }));
      return { text, name, table };
    },
    [],
    then,
  );

/** Brings a book in, or only says what would come. */
export const useImport = (kept: (done: Schemas["Imported"]) => void) =>
  useSend(
    (b: Schemas["Import"]) => body(client.POST("/library/import", { body: b })),
    (b) => (b.try ? [] : [{ fact: "library" }]),
    (done) => {
      if (done.kept) kept(done);
    },
  );
