import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { useArrange } from "../data/arrange";
import { ladderQuery } from "../data/ladder";
import { techniqueQuery } from "../data/technique";
import { leapSize, strandNames } from "../data/words";
import { Consequences } from "../ladder/Consequences";
import { EmptyLadder } from "../ladder/EmptyLadder";
import { Fits } from "../ladder/Fits";
import { LadderDrawing } from "../ladder/LadderDrawing";
import { isAhead } from "../ladder/layout";
import { NextRung } from "../ladder/NextRung";
import { insert, move, orderOf, swap } from "../ladder/order";
import { PlantingList, PlantingNote } from "../ladder/Plantings";
import { RungNote } from "../ladder/RungNote";
import { Targets } from "../ladder/Targets";
import { Treats } from "../ladder/Treats";
import { type Zoom, zooms } from "../ladder/zoom";
import { AddPiece } from "../parts/AddPiece";
import { LayerMark } from "../parts/LayerMark";
import { Problem, Refused, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { Why } from "../parts/Why";

const nothing: Schemas["NextExercise"][] = [];

/** The heart: a student's strands as rails, materials as rungs, gaps the size of the leap. */
export function Ladder() {
  const { ladder = "" } = useParams();
  const view = useQuery(ladderQuery(ladder));
  // A link may ask for a rung, as from the page of a piece.
  const [params] = useSearchParams();
  const asked = params.get("rung") ?? undefined;
  const [picked, setPicked] = useState(asked);
  const [planting, setPlanting] = useState<string>();
  const [zoom, setZoom] = useState<Zoom>("term");
  const [chosenTab, setTab] = useState<string>();
  const arrange = useArrange(ladder, view.data?.version);
  // The ladder does not wait for what the staircases propose.
  const technique = useQuery({ ...techniqueQuery(ladder), enabled: view.isSuccess });
  if (view.isPending) return <Waiting />;
  if (view.error) return <Problem error={view.error} again={() => view.refetch()} />;
  const v = arrange.trial?.view ?? view.data;
  const order = arrange.trial?.order ?? orderOf(view.data);
  const rungs = v.rails.flatMap((r) => r.rungs.map((rung) => ({ rung, strand: r.strand })));
  const chosen =
    rungs.find((r) => r.rung.material === picked) ??
    rungs.find((r) => r.rung.layer === "working" && !r.rung.aside) ??
    rungs[0];
  // Where nothing is in work, what comes next is the question.
  const tab = chosenTab ?? (rungs.some((r) => r.rung.layer === "working") ? "rung" : "next");
  const plant = v.plantings.find((p) => p.skill === planting) ?? v.plantings[0];
  const pickPlanting = (skill: string) => {
    setPlanting(skill);
    setTab("plant");
  };
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-3.1rem)]">
      <Title of={`${v.student.name}, ladder`} />
      <Head view={v} zoom={zoom} onZoom={setZoom} />
      {arrange.trial && (
        <Consequences
          changes={arrange.trial.changes}
          busy={arrange.busy}
          keep={arrange.keep}
          undo={arrange.undo}
        />
      )}
      <Refused error={arrange.error} />
      {v.rails.length === 0 ? (
        <EmptyLadder student={v.student} />
      ) : (
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <LadderDrawing
            view={v}
            zoom={zoom}
            asked={asked}
            proposed={technique.data?.proposed ?? nothing}
            picked={chosen?.rung.material}
            planting={tab === "plant" ? plant?.skill : undefined}
            onPlanting={pickPlanting}
            onPick={(material) => {
              setPicked(material);
              setTab("rung");
            }}
            onMove={(material, by) => {
              setPicked(material);
              const next = move(order, material, by);
              if (next !== order) arrange.attempt(next);
            }}
          />
          <aside className="border-line bg-sheet max-lg:border-t lg:w-[20.5rem] lg:shrink-0 lg:overflow-y-auto lg:border-l">
            <Tabs.Root value={tab} onValueChange={setTab}>
              <Tabs.List
                aria-label="Notes"
                className="sticky top-0 z-10 flex border-b border-line bg-sheet px-3"
              >
                {tabs.map(([key, name]) => (
                  <Tabs.Trigger
                    key={key}
                    value={key}
                    className="min-h-touch flex-1 border-b-[3px] border-transparent px-1 data-[state=active]:border-working data-[state=active]:font-semibold"
                  >
                    {name}
                  </Tabs.Trigger>
                ))}
              </Tabs.List>
              <Tabs.Content value="rung" className="p-5">
                {chosen && (
                  <RungNote
                    rung={chosen.rung}
                    student={v.student}
                    order={order}
                    busy={arrange.busy}
                    attempt={arrange.attempt}
                  />
                )}
              </Tabs.Content>
              <Tabs.Content value="plant" className="p-5">
                {plant && <PlantingNote planting={plant} />}
                <div className="mt-5 border-t border-line pt-3">
                  <PlantingList list={v.plantings} picked={plant?.skill} onPick={setPlanting} />
                </div>
              </Tabs.Content>
              <Tabs.Content value="next" className="p-5">
                {chosen && <NextRung key={chosen.strand} ladder={ladder} strand={chosen.strand} />}
                {chosen && (
                  <Fits
                    ladder={ladder}
                    strand={chosen.strand}
                    busy={arrange.busy}
                    rung={isAhead(chosen.rung) ? chosen.rung : undefined}
                    onSwap={(other) => arrange.attempt(swap(order, chosen.rung.material, other))}
                    onInsert={(material, strand) => {
                      setPicked(material);
                      arrange.attempt(insert(order, material, strand));
                    }}
                  />
                )}
              </Tabs.Content>
              <Tabs.Content value="dates" className="p-5">
                <Targets view={v} />
                <Treats ladder={ladder} rungs={rungs.map((r) => r.rung)} />
              </Tabs.Content>
            </Tabs.Root>
          </aside>
        </div>
      )}
    </div>
  );
}

const tabs = [
  ["rung", "Rung"],
  ["plant", "Prepare"],
  ["next", "Next"],
  ["dates", "Dates"],
] as const;

function Head({
  view,
  zoom,
  onZoom,
}: {
  view: Schemas["LadderView"];
  zoom: Zoom;
  onZoom: (z: Zoom) => void;
}) {
  const s = view.student;
  return (
    <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 border-b border-line px-4 py-2 sm:px-6">
      <div className="min-w-0 flex-1 basis-[34rem]">
        <p className="fine">
          <Link to={`/student/${s.student}`} className="underline decoration-line underline-offset-4">
            {s.name}
          </Link>{" "}
          · {s.instrument} · {s.age} years ·{" "}
          <Link to={`/progress/${s.ladder}`} className="underline decoration-line underline-offset-4">
            progress
          </Link>{" "}
          ·{" "}
          <Link to={`/past/${s.ladder}`} className="underline decoration-line underline-offset-4">
            past lessons
          </Link>{" "}
          ·{" "}
          <Link to={`/known/${s.ladder}`} className="underline decoration-line underline-offset-4">
            known before
          </Link>{" "}
          ·{" "}
          <Link
            to={`/meeting/${s.ladder}?show=elsewhere`}
            className="underline decoration-line underline-offset-4"
          >
            what is there
          </Link>
        </p>
        <h1 className="text-[1.35rem]">{view.sentence}</h1>
        <div className="fine mt-1 flex flex-wrap items-center gap-x-4">
          <Legend />
          <span className="inline-flex items-center">
            comfortable leap
            <Why label="Why this comfortable leap?" shown={leapSize(view.reach)}>
              <p>{view.reachWhy}.</p>
              {view.rails
                .filter((r) => r.reach !== view.reach)
                .map((r) => (
                  <p key={r.strand}>
                    {strandNames[r.strand]}: {leapSize(r.reach)}; {r.reachWhy}.
                  </p>
                ))}
            </Why>
          </span>
        </div>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <label className="fine flex items-center gap-2">
          shown
          <select value={zoom} onChange={(e) => onZoom(e.target.value as Zoom)}>
            {Object.entries(zooms).map(([key, z]) => (
              <option key={key} value={key}>
                {z.name}
              </option>
            ))}
          </select>
        </label>
        <Link to={`/lesson/${s.ladder}`} className="press press-main">
          Lesson
        </Link>
        <Link to={`/week/${s.ladder}`} className="press">
          Week
        </Link>
        <AddPiece student={s} />
      </div>
    </div>
  );
}

function Legend() {
  const layers = [
    ["working", "working"],
    ["preview", "ahead, being prepared"],
    ["ahead", "ahead"],
    ["review", "review"],
  ] as const;
  return (
    <>
      <span className="inline-flex items-center gap-1.5">
        <svg width="18" height="4" aria-hidden="true">
          <path d="M0 2h18" stroke="var(--color-working)" strokeWidth="2" strokeDasharray="5 3" />
        </svg>
        now
      </span>
      <span className="inline-flex items-center gap-1.5">
        <svg viewBox="0 0 20 20" width="12" height="12" className="text-working" aria-hidden="true">
          <path d="M4 16L10 4l6 12z" fill="currentColor" />
        </svg>
        run due
      </span>
      {layers.map(([layer, word]) => (
        <span key={layer} className="inline-flex items-center gap-1.5">
          <LayerMark layer={layer} size={13} />
          {word}
        </span>
      ))}
    </>
  );
}
