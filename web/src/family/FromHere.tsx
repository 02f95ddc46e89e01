import { useState } from "react";
import type { Schemas } from "../contract/client";
import { useSay } from "./say";
import { type Tick, written } from "./ticks";

type Page = Schemas["FamilyPage"];
type Send = (t: Omit<Tick, "id" | "at">) => void;

/** What a family writes: what was also played, a question, a wish to move a lesson; and what the teacher answered. */
export function FromHere({ page, waiting, send }: { page: Page; waiting: Tick[]; send: Send }) {
  const { say } = useSay();
  const asked = page.notes.filter((n) => n.kind !== "also");
  return (
    <div className="mt-8 grid gap-2">
      <Drawer title={say("also")}>
        <p className="fine">{say("also.why")}</p>
        <Write
          label={say("also.what")}
          button={say("also.add")}
          rows={1}
          onSend={(text) => send({ kind: "also", text })}
        />
        <Said notes={page.notes.filter((n) => n.kind === "also")} waiting={written(waiting, "also")} />
      </Drawer>
      <Drawer title={say("ask", { teacher: page.teacher })} open={asked.some((n) => n.answer !== "")}>
        <Write
          label={say("ask.what")}
          button={say("ask.send")}
          rows={3}
          onSend={(text) => send({ kind: "ask", text })}
        />
        <Said notes={asked} waiting={[...written(waiting, "ask"), ...written(waiting, "reschedule")]} />
      </Drawer>
      {page.lessons.length > 0 && (
        <Drawer title={say("move")}>
          <Move lessons={page.lessons} send={send} />
        </Drawer>
      )}
    </div>
  );
}

function Drawer({ title, open, children }: { title: string; open?: boolean; children: React.ReactNode }) {
  return (
    <details className="rounded-xl border border-line px-4" open={open}>
      <summary className="flex min-h-touch items-center py-2 font-head text-lg">{title}</summary>
      <div className="grid gap-2 pb-4">{children}</div>
    </details>
  );
}

const most = 1000;

function Write(props: { label: string; button: string; rows: number; onSend: (text: string) => void }) {
  const [text, setText] = useState("");
  const send = () => {
    if (text.trim() === "") return;
    props.onSend(text.trim());
    setText("");
  };
  return (
    <form
      className="grid gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        send();
      }}
    >
      {props.rows > 1 ? (
        <label className="grid gap-1">
          {props.label}
          <textarea
            className="rounded-md border-[1.5px] border-soft bg-sheet px-3 py-2"
            rows={props.rows}
            maxLength={most}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
      ) : (
        <label className="grid gap-1">
          {props.label}
          <input maxLength={200} value={text} onChange={(e) => setText(e.target.value)} />
        </label>
      )}
      <button type="submit" className="press justify-self-start" disabled={text.trim() === ""}>
        {props.button}
      </button>
    </form>
  );
}

function Move({ lessons, send }: { lessons: Schemas["FamilyLesson"][]; send: Send }) {
  const { say } = useSay();
  const [lesson, setLesson] = useState(lessons[0]?.lesson ?? "");
  return (
    <>
      <label className="grid gap-1">
        {say("move.which")}
        <select value={lesson} onChange={(e) => setLesson(e.target.value)}>
          {lessons.map((l) => (
            <option key={l.lesson} value={l.lesson}>
              {l.name}
            </option>
          ))}
        </select>
      </label>
      <Write
        label={say("move.what")}
        button={say("move.send")}
        rows={2}
        onSend={(text) => send({ kind: "reschedule", text, lesson })}
      />
    </>
  );
}

/** What was written, the newest first, and what was answered. */
function Said({ notes, waiting }: { notes: Schemas["FamilyNote"][]; waiting: Tick[] }) {
  const { say } = useSay();
  if (notes.length + waiting.length === 0) return null;
  const there = new Set(notes.map((n) => n.id));
  const unsent = waiting.filter((w) => !there.has(w.id));
  return (
    <ul className="grid gap-3">
      {unsent.map((w) => (
        <li key={w.id}>
          <p className="break-words">{w.text}</p>
          <p className="fine">{say("waits", { n: 1 })}</p>
        </li>
      ))}
      {notes.map((n) => (
        <li key={n.id}>
          <p className="break-words">{n.text}</p>
          <p className="fine">{n.said}</p>
          {n.answer && <p className="mt-1 border-l-4 border-focus pl-3 text-lg leading-snug">{n.answer}</p>}
        </li>
      ))}
    </ul>
  );
}
