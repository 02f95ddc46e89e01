import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import { ulid } from "ulid";
import type { Schemas } from "../contract/client";
import { useMaterials } from "../data/library";
import {
  useCopyMaterial,
  useJoin,
  useMerge,
  usePlaceOnLadders,
  useRemoveMaterial,
  useSections,
  useSplit,
} from "../data/shelve";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

/** What can be done with a piece in the library: onto ladders, into sections, merged, removed. */
export function Manage({ piece, students }: { piece: Schemas["Piece"]; students: Schemas["Student"][] }) {
  const m = piece.material;
  const [said, setSaid] = useState<string>();
  const navigate = useNavigate();
  const remove = useRemoveMaterial(m.id, (r) => {
    if (r.removed) navigate("/library");
    else setSaid(r.words);
  });
  const copy = useCopyMaterial(m.id, (c) => navigate(`/piece/${c.id}`));
  return (
    <section aria-label="In the library" className="mt-5 border-t border-line pt-3">
      <h2 className="text-lg">In the library</h2>
      <div className="flex flex-wrap">
        <OnLadders material={m} students={students} />
        <Sections material={m} />
        <Merge material={m} />
        <button type="button" className="quiet" disabled={copy.isPending} onClick={() => copy.mutate(ulid())}>
          Make my own copy
        </button>
        <button
          type="button"
          className="quiet"
          disabled={remove.isPending}
          onClick={() => remove.mutate(m.retired ?? false)}
        >
          {m.retired ? "Offer it again" : "Remove the piece"}
        </button>
      </div>
      {(said ?? m.retired) && (
        <p className="fine">{said ?? "Not offered any more; whoever has it keeps it."}</p>
      )}
      <Refused error={remove.error ?? copy.error} />
    </section>
  );
}

function OnLadders(props: { material: Schemas["MaterialBrief"]; students: Schemas["Student"][] }) {
  const [open, setOpen] = useState(false);
  const place = usePlaceOnLadders(props.material.id, () => setOpen(false));
  const list = props.students.filter((s) => s.instrument === props.material.instrument && s.state !== "gone");
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const ladders = new FormData(e.currentTarget).getAll("ladder").map(String);
    if (ladders.length > 0) place.mutate(ladders);
  };
  return (
    <>
      <button type="button" className="quiet" onClick={() => setOpen(true)}>
        Add to ladders
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`“${props.material.title}” onto ladders`}
        says="It is put at the end of its strand. Whoever has it already keeps it where it is."
      >
        <form onSubmit={send} className="grid gap-1">
          {list.map((s) => (
            <label key={s.ladder} className="flex min-h-touch items-center gap-3">
              <input
                type="checkbox"
                name="ladder"
                value={s.ladder}
                className="size-5 min-h-0 accent-working"
              />
              {s.name}
            </label>
          ))}
          {list.length === 0 && <p>Nobody learns the {props.material.instrument} yet.</p>}
          <Refused error={place.error} />
          <button type="submit" className="press press-main mt-2" disabled={place.isPending}>
            Add it
          </button>
        </form>
      </Sheet>
    </>
  );
}

function Sections({ material: m }: { material: Schemas["MaterialBrief"] }) {
  const [open, setOpen] = useState(false);
  const sections = useSections(m.id, open);
  const join = useJoin(m.id);
  const have = sections.data?.sections ?? [];
  return (
    <>
      <button type="button" className="quiet" onClick={() => setOpen(true)}>
        Sections
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`Sections of “${m.title}”`}
        says={sections.data?.words ?? "Each section can be cleared by itself."}
      >
        {have.length > 0 ? (
          <>
            <ol className="list-decimal pl-6">
              {have.map((s) => (
                <li key={s.id}>{s.title}</li>
              ))}
            </ol>
            <Refused error={join.error} />
            <button
              type="button"
              className="press mt-3"
              disabled={join.isPending}
              onClick={() => join.mutate(undefined, { onSuccess: () => setOpen(false) })}
            >
              Join the sections again
            </button>
          </>
        ) : (
          sections.data && (
            <Split
              key={sections.data.proposed.length}
              piece={m}
              proposed={sections.data.proposed}
              done={() => setOpen(false)}
            />
          )
        )}
      </Sheet>
    </>
  );
}

function Split(props: {
  piece: Schemas["MaterialBrief"];
  proposed: Schemas["NewSection"][];
  done: () => void;
}) {
  const blank = (): Schemas["NewSection"] => ({ id: ulid(), title: "" });
  const [list, setList] = useState(() => (props.proposed.length > 1 ? props.proposed : [blank(), blank()]));
  const split = useSplit(props.piece.id, props.done);
  const set = (i: number, x: Partial<Schemas["NewSection"]>) =>
    setList(list.map((s, j) => (j === i ? { ...s, ...x } : s)));
  const bar = (text: string) => (text === "" ? undefined : Number(text));
  return (
    <form
      className="grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        split.mutate(list);
      }}
    >
      {list.map((s, i) => (
        <div key={s.id} className="flex items-end gap-2">
          <div className="min-w-0 flex-1">
            <Field label={`Section ${i + 1}`}>
              <input
                required
                maxLength={200}
                value={s.title}
                onChange={(e) => set(i, { title: e.target.value })}
              />
            </Field>
          </div>
          {props.piece.bars > 0 && (
            <>
              <div className="w-20">
                <Field label="From bar">
                  <input
                    type="number"
                    min={1}
                    max={props.piece.bars}
                    value={s.from ?? ""}
                    onChange={(e) => set(i, { from: bar(e.target.value) })}
                  />
                </Field>
              </div>
              <div className="w-20">
                <Field label="to bar">
                  <input
                    type="number"
                    min={1}
                    max={props.piece.bars}
                    value={s.to ?? ""}
                    onChange={(e) => set(i, { to: bar(e.target.value) })}
                  />
                </Field>
              </div>
            </>
          )}
          <button
            type="button"
            className="quiet"
            disabled={list.length <= 2}
            onClick={() => setList(list.filter((_, j) => j !== i))}
          >
            Remove
          </button>
        </div>
      ))}
      <button type="button" className="quiet justify-self-start" onClick={() => setList([...list, blank()])}>
        Add a section
      </button>
      <Refused error={split.error} />
      <button type="submit" className="press press-main" disabled={split.isPending}>
        Split it
      </button>
    </form>
  );
}

function Merge({ material: m }: { material: Schemas["MaterialBrief"] }) {
  const [open, setOpen] = useState(false);
  const [into, setInto] = useState("");
  const materials = useMaterials(m.instrument, open);
  const navigate = useNavigate();
  const merge = useMerge(m.id, () => navigate(`/piece/${into}`));
  return (
    <>
      <button type="button" className="quiet" onClick={() => setOpen(true)}>
        Merge
      </button>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        title={`“${m.title}” is the same as`}
        says="The other piece takes its place on every ladder and in every log. This one is gone."
      >
        <form
          className="grid gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (into) merge.mutate(into);
          }}
        >
          <select
            aria-label="The piece that stays"
            required
            value={into}
            onChange={(e) => setInto(e.target.value)}
          >
            <option value="">choose the piece that stays</option>
            {materials.data
              ?.filter((x) => x.id !== m.id && !x.exercise)
              .map((x) => (
                <option key={x.id} value={x.id}>
                  {x.title}
                </option>
              ))}
          </select>
          <Refused error={merge.error} />
          <button type="submit" className="press press-main" disabled={merge.isPending || !into}>
            Merge them
          </button>
        </form>
      </Sheet>
    </>
  );
}
