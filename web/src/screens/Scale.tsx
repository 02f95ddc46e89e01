import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import type { Schemas } from "../contract/client";
import { scaleQuery } from "../data/technique";
import { Problem, Waiting } from "../parts/Problem";
import { Title } from "../parts/Title";
import { PlayControls } from "../sound/PlayControls";
import { usePlayback } from "../sound/usePlayback";
import { Board } from "../technique/Board";
import { KeyRing } from "../technique/KeyRing";
import { beatsOf, type Hands, soundsOf } from "../technique/notes";

const kinds: Partial<Record<Schemas["ScaleKind"], string>> = {
  major: "Major",
  "natural-minor": "Natural minor",
  "harmonic-minor": "Harmonic minor",
  "melodic-minor": "Melodic minor",
  chromatic: "Chromatic",
  "major-arpeggio": "Major arpeggio",
  "minor-arpeggio": "Minor arpeggio",
  "major-broken-chord": "Major broken chord",
  "minor-broken-chord": "Minor broken chord",
  "major-five-finger": "Major five fingers",
  "minor-five-finger": "Minor five fingers",
};

const handNames: Record<Hands, string> = {
  right: "right",
  left: "left",
  both: "together",
  contrary: "contrary",
};

/** A scale in any key with the fingers of both hands, where they meet, and how it sounds. */
export function Scale() {
  const [params, setParams] = useSearchParams();
  const key = params.get("key") ?? "C";
  const kind = (params.get("kind") ?? "major") as Schemas["ScaleKind"];
  const octaves = Number(params.get("octaves") ?? 1);
  const scale = useQuery(scaleQuery(key, kind, octaves));
  const [hands, setHands] = useState<Hands>("both");
  const [tempo, setTempo] = useState(80);
  const set = (more: Record<string, string>) => setParams({ key, kind, octaves: String(octaves), ...more });
  if (scale.isPending) return <Waiting />;
  if (scale.error)
    return (
      <>
        <Problem error={scale.error} />
        <p className="text-center">
          <button type="button" className="press" onClick={() => setParams({})}>
            Back to C major
          </button>
        </p>
      </>
    );
  const s = scale.data;
  return (
    <div className="mx-auto max-w-[84rem] px-4 py-4 sm:px-6">
      <Title of="Scales" />
      <p className="fine flex flex-wrap items-center gap-x-4">
        <span>{s.name}</span>
        <Link to="/technique" className="quiet">
          Back to the students
        </Link>
      </p>
      <h1 className="text-[1.6rem]">{s.sentence}</h1>
      <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-[21rem_1fr]">
        <div>
          <KeyRing scale={s} onPick={(k) => set({ key: k })} />
          <label className="mt-3 flex flex-col">
            <span className="fine">Kind</span>
            <select
              value={kind}
              onChange={(e) => set({ kind: e.target.value, key: keyFor(s, e.target.value) })}
            >
              {Object.entries(kinds).map(([k, name]) => (
                <option key={k} value={k}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <Choice
            title="Octaves"
            of={["1", "2", "3", "4"]}
            chosen={String(octaves)}
            pick={(o) => set({ octaves: o })}
          />
          <Choice
            title="Hands"
            of={Object.keys(handNames)}
            names={handNames}
            chosen={hands}
            pick={(h) => setHands(h as Hands)}
          />
        </div>
        <Sounding
          key={`${s.key} ${s.kind} ${s.octaves}`}
          scale={s}
          hands={hands}
          tempo={tempo}
          setTempo={setTempo}
        />
      </div>
    </div>
  );
}

/** The key in another kind: the same name where it exists, else C. */
const keyFor = (s: Schemas["Scale"], kind: string) =>
  kind.includes("minor") && ["Db", "Gb", "Cb"].includes(s.key)
    ? ({ Db: "C#", Gb: "F#", Cb: "B" }[s.key] ?? "C")
    : ["D#", "G#", "A#"].includes(s.key)
      ? ({ "D#": "Eb", "G#": "Ab", "A#": "Bb" }[s.key] ?? "C")
      : s.key;

function Choice(props: {
  title: string;
  of: string[];
  names?: Record<string, string>;
  chosen: string;
  pick: (x: string) => void;
}) {
  return (
    <fieldset className="m-0 mt-3 flex flex-wrap gap-1.5 border-0 p-0">
      <legend className="fine">{props.title}</legend>
      {props.of.map((x) => (
        <button
          key={x}
          type="button"
          aria-pressed={x === props.chosen}
          className="press min-w-touch px-3 aria-pressed:border-working aria-pressed:bg-reach aria-pressed:font-semibold"
          onClick={() => props.pick(x)}
        >
          {props.names?.[x] ?? x}
        </button>
      ))}
    </fieldset>
  );
}

/** The keyboard, the notes with their fingers, and the sound with its metronome. */
function Sounding(props: {
  scale: Schemas["Scale"];
  hands: Hands;
  tempo: number;
  setTempo: (tempo: number) => void;
}) {
  const { scale: s, hands, tempo, setTempo } = props;
  const playback = usePlayback();
  return (
    <div className="min-w-0">
      <Board scale={s} hands={hands} sounding={playback.now?.midi ?? []} />
      <PlayControls
        playback={playback}
        tempo={tempo}
        setTempo={setTempo}
        what={() => ({
          notes: soundsOf(s, hands),
          beats: beatsOf(s),
          start: 0,
          end: 2 * s.up.midi.length - 1,
        })}
      />
      <Table scale={s} hands={hands} />
      {s.alternatives.length > 0 && (
        <ul className="fine mt-2">
          {s.alternatives.map((a) => (
            <li key={a.fingers.join()}>
              Also printed, {a.right ? "right" : "left"} hand: {a.fingers.join(" ")} ({a.why}).
            </li>
          ))}
        </ul>
      )}
      <p className="fine mt-3">
        The thumb is under and ready before it is needed; unused fingers stay low and quiet; no faster until
        it is even. Pain, tingling or numbness means stop and rest; if it stays, see a doctor or
        physiotherapist.
      </p>
    </div>
  );
}

/** The notes upwards with the finger of each hand, as a line under a line. */
function Table({ scale: s, hands }: { scale: Schemas["Scale"]; hands: Hands }) {
  const line = (name: string, cells: (string | number)[]) => (
    <tr key={name}>
      <th scope="row" className="fine pr-3 text-left font-normal">
        {name}
      </th>
      {cells.map((c, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: notes in their order
        <td key={i} className="figures min-w-8 px-1 text-center">
          {c}
        </td>
      ))}
    </tr>
  );
  const down = s.down.notes.join() !== [...s.up.notes].reverse().join();
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a wide table is scrolled by keys, too
    <section className="mt-4 overflow-x-auto" aria-label="Fingers, note by note" tabIndex={0}>
      <table className="border-t border-line">
        <tbody>
          {hands !== "left" && line("right", s.up.right)}
          {line("up", s.up.notes)}
          {hands !== "right" && line("left", s.up.left)}
          {down && line("down", s.down.notes)}
          {down && hands !== "left" && line("right, down", s.down.right)}
          {down && hands !== "right" && line("left, down", s.down.left)}
        </tbody>
      </table>
    </section>
  );
}
