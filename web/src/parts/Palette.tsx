import { Command } from "cmdk";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { useMaterials } from "../data/library";
import { useStudents, useToday } from "../data/people";
import { plain } from "../data/roll";
import { addDays } from "../data/time";

const screens = [
  ["Today", "/"],
  ["Calendar", "/calendar"],
  ["Studio", "/overview"],
  ["Technique", "/technique"],
  ["Library", "/library"],
  ["Ways of teaching", "/settings"],
  ["Messages", "/messages"],
] as const;

const pages = [
  ["ladder", "Ladder"],
  ["lesson", "Lesson"],
  ["week", "Week"],
  ["plan", "Plan"],
  ["past", "Past lessons"],
  ["known", "Known before"],
] as const;

/** How well a line fits what was typed: all words must be in it, whatever their case and marks. */
export const fits = (line: string, search: string): number => {
  const here = plain(line);
  const words = plain(search).split(/\s+/).filter(Boolean);
  if (!words.every((w) => here.includes(w))) return 0;
  return words[0] && here.startsWith(words[0]) ? 1 : 0.5;
};

/** Goes anywhere from the keyboard: Ctrl K, or the slash where nothing is being typed. */
export function Palette() {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState("");
  const navigate = useNavigate();
  const today = useToday();
  const students = useStudents(open);
  const materials = useMaterials(undefined, open);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement && e.target.closest("input, textarea, select, [contenteditable]");
      if ((e.key === "k" && (e.ctrlKey || e.metaKey)) || (e.key === "/" && !typing)) {
        e.preventDefault();
        setOpen((o) => !o);
      }
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
  const go = (to: string) => {
    setOpen(false);
    setWanted("");
    navigate(to);
  };
  const item =
    "flex min-h-touch cursor-pointer items-center justify-between gap-3 rounded px-3 data-[selected=true]:bg-fold";
  const heading = "[&_[cmdk-group-heading]]:fine [&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2";
  return (
    <>
      <button type="button" className="quiet no-underline" onClick={() => setOpen(true)} aria-label="Go to …">
        <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
          <circle cx="8.5" cy="8.5" r="5.5" fill="none" stroke="currentColor" strokeWidth="1.8" />
          <path d="M13 13l5 5" stroke="currentColor" strokeWidth="1.8" strokeLinecap="round" />
        </svg>
      </button>
      <Command.Dialog
        open={open}
        onOpenChange={setOpen}
        label="Go to"
        filter={(line, search) => fits(line, search)}
        overlayClassName="fixed inset-0 z-30 bg-black/45"
        contentClassName="fixed inset-x-3 top-[8vh] z-40 mx-auto max-w-xl rounded-2xl border border-line bg-sheet p-3 shadow-xl"
      >
        <Command.Input
          value={wanted}
          onValueChange={(v) => setWanted(v.replace(/^\//, ""))} // the key that opened it
          placeholder="A student, a piece, a screen"
          className="w-full"
        />
        <Command.List className="mt-2 max-h-[60vh] overflow-y-auto">
          <Command.Empty className="fine px-3 py-4">Nothing is called that.</Command.Empty>
          <Command.Group heading="Students" className={heading}>
            {students.data?.map((s) => (
              <Command.Item
                key={s.ladder}
                value={`${s.name} ${s.called} ${s.instrument} ${s.ladder}`}
                onSelect={() => go(`/ladder/${s.ladder}`)}
                className={item}
              >
                <span className="truncate">{s.name}</span>
                <span className="fine shrink-0">{s.instrument}</span>
              </Command.Item>
            ))}
          </Command.Group>
          {wanted !== "" && (
            <>
              <Command.Group heading="Pages of a student" className={heading}>
                {students.data?.flatMap((s) =>
                  pages.map(([path, name]) => (
                    <Command.Item
                      key={`${path} ${s.ladder}`}
                      value={`${name} ${s.name} ${s.instrument} ${s.ladder}`}
                      onSelect={() => go(`/${path}/${s.ladder}`)}
                      className={item}
                    >
                      {name}: {s.name}
                    </Command.Item>
                  )),
                )}
              </Command.Group>
              <Command.Group heading="Pieces" className={heading}>
                {materials.data?.map((m) => (
                  <Command.Item
                    key={m.id}
                    value={`${m.title} ${m.composer} ${m.id}`}
                    onSelect={() => go(`/piece/${m.id}`)}
                    className={item}
                  >
                    <span className="truncate">{m.title}</span>
                    <span className="fine shrink-0">{m.instrument}</span>
                  </Command.Item>
                ))}
              </Command.Group>
            </>
          )}
          <Command.Group heading="Screens" className={heading}>
            {screens.map(([name, path]) => (
              <Command.Item key={path} value={name} onSelect={() => go(path)} className={item}>
                {name}
              </Command.Item>
            ))}
            <Command.Item value="Tomorrow" onSelect={() => go(`/?day=${addDays(today, 1)}`)} className={item}>
              Tomorrow
            </Command.Item>
            <Command.Item
              value="Next week"
              onSelect={() => go(`/calendar?day=${addDays(today, 7)}`)}
              className={item}
            >
              Next week
            </Command.Item>
          </Command.Group>
        </Command.List>
      </Command.Dialog>
    </>
  );
}
