import { useSay } from "./say";

/** What is left for later, in a calm voice; the one thing to watch; how often. */
export function NotYet({ list, watch, dose }: { list: string[]; watch: string; dose: string }) {
  const { say } = useSay();
  return (
    <>
      {watch && <p className="mt-6 border-l-4 border-focus pl-3 text-lg leading-snug">{watch}</p>}
      {list.length > 0 && (
        <section className="mt-6 rounded-xl bg-fold p-4">
          <h2 className="text-[1.2rem]">{say("not-yet")}</h2>
          <ul className="mt-1 grid gap-1 text-lg leading-snug">
            {list.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
          <p className="fine mt-2">{say("not-yet.why")}</p>
        </section>
      )}
      {dose && <p className="mt-4">{dose}</p>}
    </>
  );
}
