import { useQuery } from "@tanstack/react-query";
import { ToggleGroup } from "radix-ui";
import { useState } from "react";
import { useParams, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { pieceQuery } from "../data/library";
import { studentsQuery } from "../data/people";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Borders } from "../piece/Borders";
import { Corrections, Paper } from "../piece/Corrections";
import { Demands } from "../piece/Demands";
import { Facts, ReadyFor } from "../piece/Facts";
import { FingerSheet } from "../piece/FingerSheet";
import { ForStudent } from "../piece/ForStudent";
import { HandView } from "../piece/HandView";
import { Listen, type Now } from "../piece/Listen";
import { Manage } from "../piece/Manage";
import { Moods } from "../piece/Moods";
import { OverlayKey } from "../piece/OverlayKey";
import { Skipped } from "../piece/Skipped";
import { WhosePart } from "../piece/WhosePart";
import { chooseAll, chooseChunk } from "../score/choose";
import { type Chosen, firstOverlays, type Overlay, overlayNames } from "../score/overlays";
import { ScoreSheet } from "../score/ScoreSheet";

/** A piece read closely: the score with the pencil over it, and the facts beside it. */
export function Piece() {
  const { material = "" } = useParams();
  const [params, setParams] = useSearchParams();
  const ladder = params.get("ladder") ?? undefined;
  const piece = useQuery(pieceQuery(material, ladder));
  const students = useQuery(studentsQuery);
  if (piece.isPending) return <Waiting />;
  if (piece.error) return <Problem error={piece.error} again={() => piece.refetch()} />;
  const p = piece.data;
  const player = students.data?.find((s) => s.ladder === ladder);
  return (
    <div className="mx-auto max-w-[88rem] px-4 py-4 sm:px-6">
      <Title of={p.material.title} />
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div className="min-w-0 max-w-3xl">
          <p className="fine">
            {p.material.from || p.material.instrument}
            {p.material.composer && p.material.composer !== p.material.from
              ? ` · ${p.material.composer}`
              : ""}
          </p>
          <h1 className="break-words">{p.material.title}</h1>
          <p className="say mt-1">{p.sentence}</p>
        </div>
        <label className="flex items-center gap-2">
          <span className="fine">for</span>
          <select
            value={ladder ?? ""}
            onChange={(e) => setParams(e.target.value ? { ladder: e.target.value } : {}, { replace: true })}
          >
            <option value="">any student</option>
            {students.data
              ?.filter((s) => s.instrument === p.material.instrument)
              .map((s) => (
                <option key={s.ladder} value={s.ladder}>
                  {s.name}
                </option>
              ))}
          </select>
        </label>
      </div>
      <div className="mt-3 flex flex-col gap-6 lg:flex-row">
        <div className="min-w-0 flex-1">
          {p.hasScore ? (
            // Another student may read in another way: the marks open anew.
            <Reading
              key={`${material} ${ladder} ${p.approach} ${p.firstView}`}
              piece={p}
              forStudent={ladder !== undefined}
            />
          ) : (
            <p className="rounded-lg border border-dashed border-line p-8">
              There is no score for this piece yet. Add one with “Add its score”, beside.
            </p>
          )}
        </div>
        <aside className="lg:w-[21rem] lg:shrink-0">
          {p.leap && player && <ForStudent piece={p} leap={p.leap} student={player} />}
          {p.askPart && <WhosePart piece={p} />}
          <Facts piece={p} />
          <ReadyFor piece={p} ladder={ladder} />
          <Demands piece={p} />
          <Moods piece={p} />
          {!p.askPart && <WhosePart piece={p} />}
          <Corrections piece={p} />
          <Paper piece={p} ladder={ladder} />
          <Manage piece={p} students={students.data ?? []} />
        </aside>
      </div>
    </div>
  );
}

/** The score with its marks, its sound and the hand under it. */
function Reading({ piece, forStudent }: { piece: Schemas["Piece"]; forStudent: boolean }) {
  const [on, setOn] = useState<Overlay[]>(() =>
    piece.firstView === "sound" ? [] : firstOverlays(piece.approach, forStudent),
  );
  const [chosen, setChosen] = useState<Chosen>(() => chooseAll(piece));
  const [now, setNow] = useState<Now>();
  const [finger, setFinger] = useState<Schemas["NoteFinger"]>();
  const still = current(piece, chosen);
  const listen = <Listen piece={piece} chosen={still} choose={setChosen} tell={setNow} />;
  return (
    <>
      {piece.firstView === "sound" && <div className="mb-4">{listen}</div>}
      <ToggleGroup.Root
        type="multiple"
        value={on}
        onValueChange={(list) => setOn(list as Overlay[])}
        aria-label="Pencil marks"
        className="flex flex-wrap gap-1.5"
      >
        {(Object.keys(overlayNames) as Overlay[])
          .filter((o) => o !== "fresh" || forStudent)
          .map((o) => (
            <ToggleGroup.Item
              key={o}
              value={o}
              className="press border-line px-3 text-[0.95rem] data-[state=on]:border-ink data-[state=on]:bg-fold data-[state=on]:font-semibold"
            >
              {overlayNames[o]}
            </ToggleGroup.Item>
          ))}
      </ToggleGroup.Root>
      <div
        className={`mt-2 rounded-lg border border-line bg-sheet px-2 pt-9 sm:px-5 ${on.includes("chunks") ? "pb-24" : "pb-10"}`}
      >
        <ScoreSheet
          piece={piece}
          on={on}
          chosen={still}
          choose={setChosen}
          now={now?.at}
          correct={setFinger}
        />
      </div>
      <OverlayKey piece={piece} on={on} />
      {piece.firstView === "score" && listen}
      {still.chunk && <Borders piece={piece} chunk={still.chunk} />}
      <HandView
        piece={piece}
        at={now?.at ?? (still.kind === "all" ? undefined : still.start)}
        sounding={now?.midi ?? []}
      />
      <Skipped list={piece.skipped} />
      <FingerSheet piece={piece} finger={finger} close={() => setFinger(undefined)} />
    </>
  );
}

/** A chosen chunk as it is after a correction; the whole piece when it is gone. */
function current(piece: Schemas["Piece"], chosen: Chosen): Chosen {
  const was = chosen.chunk;
  if (!was) return chosen;
  const same = piece.chunks.find((c) => c.level === was.level && c.start === was.start);
  if (!same) return chooseAll(piece);
  return same.end === was.end && same.own === was.own ? chosen : chooseChunk(piece, same);
}
