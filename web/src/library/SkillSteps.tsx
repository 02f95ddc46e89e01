import { type FormEvent, useState } from "react";
import type { Schemas } from "../contract/client";
import { useSkills } from "../data/library";
import { plain } from "../data/roll";
import { useResetSkill, useSetSkill } from "../data/shelve";
import { Refused } from "../parts/Problem";
import { Field, Sheet } from "../parts/Sheet";

type Skill = Schemas["SkillInfo"];

/** The skills with their preview steps: both can be written anew for the studio, and skills added. */
export function SkillSteps() {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState("");
  const [picked, setPicked] = useState<Skill | "new">();
  const skills = useSkills(open);
  const found = (skills.data ?? []).filter((s) => plain(`${s.name} ${s.family}`).includes(plain(wanted)));
  const families = [...new Set((skills.data ?? []).map((s) => s.family))];
  return (
    <>
      <button type="button" className="press" onClick={() => setOpen(true)}>
        Skills and bites
      </button>
      <Sheet
        open={open}
        onOpenChange={(o) => {
          setOpen(o);
          if (!o) setPicked(undefined);
        }}
        title="Skills and their preview bites"
        says="A bite is a small step that prepares a skill before a piece needs it. What you write holds for your studio."
      >
        {picked ? (
          <Edit
            key={picked === "new" ? "new" : picked.id}
            skill={picked === "new" ? undefined : picked}
            families={families}
            all={skills.data ?? []}
            done={() => setPicked(undefined)}
          />
        ) : (
          <>
            <div className="flex gap-2">
              <input
                type="search"
                aria-label="Search skills"
                placeholder="Search"
                className="min-w-0 flex-1"
                value={wanted}
                onChange={(e) => setWanted(e.target.value)}
              />
              <button type="button" className="press" onClick={() => setPicked("new")}>
                Add a skill
              </button>
            </div>
            <ul className="mt-2 max-h-[55vh] overflow-y-auto">
              {found.slice(0, 80).map((s) => (
                <li key={s.id}>
                  <button
                    type="button"
                    className="flex min-h-touch w-full items-center justify-between gap-3 rounded px-2 text-left hover:bg-fold"
                    onClick={() => setPicked(s)}
                  >
                    <span>
                      {s.name} {s.own && <span className="fine">yours</span>}
                    </span>
                    <span className="fine">
                      {s.steps.length === 0
                        ? "no bites yet"
                        : s.steps.length === 1
                          ? "1 bite"
                          : `${s.steps.length} bites`}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </>
        )}
      </Sheet>
    </>
  );
}

function Edit(props: { skill?: Skill; families: string[]; all: Skill[]; done: () => void }) {
  const { skill, families, all, done } = props;
  const [steps, setSteps] = useState(() => [...(skill?.steps ?? []), ""]);
  const [needs, setNeeds] = useState(skill?.needs ?? []);
  const save = useSetSkill(done);
  const reset = useResetSkill(done);
  const send = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const f = new FormData(e.currentTarget);
    const name = String(f.get("name")).trim();
    const slug =
      plain(name)
        .replace(/[^a-z0-9]+/g, "-")
        .replace(/^-|-$/g, "")
        .slice(0, 50) || "skill";
    // One of the same name stays beside it.
    const taken = new Set(all.map((s) => s.id));
    let id = `own.${slug}`;
    for (let n = 2; taken.has(id); n++) id = `own.${slug}-${n}`;
    save.mutate({
      skill: skill?.id ?? id,
      name,
      steps: steps.map((s) => s.trim()).filter(Boolean),
      needs,
      ahead: Number(f.get("ahead")) || 0,
      family: skill ? undefined : String(f.get("family")),
    });
  };
  return (
    <form onSubmit={send} className="grid gap-3">
      <Field label="Name">
        <input name="name" required maxLength={120} defaultValue={skill?.name} autoComplete="off" />
      </Field>
      {!skill && (
        <Field label="Family">
          <select name="family">
            {families.map((f) => (
              <option key={f}>{f}</option>
            ))}
          </select>
        </Field>
      )}
      {steps.map((s, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: steps have an order and no names
        <Field key={i} label={`Bite ${i + 1}`}>
          <input
            maxLength={300}
            value={s}
            placeholder="easy, playful, concrete"
            onChange={(e) => {
              const next = steps.map((x, j) => (j === i ? e.target.value : x));
              setSteps(next[next.length - 1] && next.length < 8 ? [...next, ""] : next);
            }}
          />
        </Field>
      ))}
      <Field label="It comes after">
        <select value="" onChange={(e) => setNeeds([...needs, e.target.value])}>
          <option value="">{needs.length === 0 ? "nothing in particular" : "and after …"}</option>
          {all
            .filter((s) => s.id !== skill?.id && !needs.includes(s.id))
            .map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
        </select>
      </Field>
      {needs.length > 0 && (
        <ul aria-label="It comes after" className="flex flex-wrap gap-2">
          {needs.map((id) => {
            const name = all.find((s) => s.id === id)?.name ?? id;
            return (
              <li key={id} className="flex items-center gap-1 rounded bg-fold pl-3">
                {name}
                <button
                  type="button"
                  className="quiet"
                  aria-label={`Not after ${name}`}
                  onClick={() => setNeeds(needs.filter((n) => n !== id))}
                >
                  ×
                </button>
              </li>
            );
          })}
        </ul>
      )}
      <Field label="Begins at least this many weeks before its first piece">
        <input
          name="ahead"
          type="number"
          min={0}
          max={200}
          defaultValue={skill?.ahead || ""}
          placeholder="as far as previews look"
        />
      </Field>
      <Refused error={save.error ?? reset.error} />
      <div className="flex flex-wrap gap-2">
        <button type="submit" className="press press-main" disabled={save.isPending}>
          Save
        </button>
        <button type="button" className="press" onClick={done}>
          Cancel
        </button>
        {skill?.own && skill.ships && (
          <button
            type="button"
            className="quiet"
            disabled={reset.isPending}
            onClick={() => reset.mutate(skill.id)}
          >
            As it came
          </button>
        )}
      </div>
    </form>
  );
}
